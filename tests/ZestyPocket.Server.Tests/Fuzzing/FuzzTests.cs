using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests.Fuzzing;

/// <summary>
/// Random calls to every operation of the OpenAPI document, on a real album. None is answered 500, every refusal is a
/// problem document, none takes longer than five seconds. ZESTY_FUZZ_CALLS says how many calls an operation gets.
/// </summary>
public sealed class FuzzTests
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    private static int CallsEach =>
        int.TryParse(
            Environment.GetEnvironmentVariable("ZESTY_FUZZ_CALLS"),
            CultureInfo.InvariantCulture,
            out var calls
        )
            ? calls
            : Thorough.Of(24, 6);

    [Trait("Duration", "Long")]
    [Fact]
    public async Task No_call_breaks_the_server()
    {
        await using var host = await TestHost.StartAsync();
        var ids = await FurnishAsync(host);
        var document = JsonNode
            .Parse(await host.Client.GetStringAsync("/api/openapi.json", TestContext.Current.CancellationToken))!
            .AsObject();
        var calls = new RandomCalls(
            document,
            11,
            name => ids.GetValueOrDefault(name) ?? ids.GetValueOrDefault(name.TrimEnd('s') + "s") ?? []
        );
        var broken = new List<string>();
        for (var round = 0; round < CallsEach; round++)
        {
            foreach (var operation in calls.Operations)
            {
                if (await TroubleAsync(host, calls.Next(operation)) is { } trouble)
                {
                    broken.Add(trouble);
                }
            }

            if (
                !(
                    await host.Client.GetAsync($"/api/albums/{ids["albums"][0]}", TestContext.Current.CancellationToken)
                ).IsSuccessStatusCode
            )
            {
                ids = await FurnishAsync(host);
            }
        }

        broken.Count.ShouldBe(0, string.Join("\n\n", broken.DistinctBy(b => b.Split('\n')[0]).Take(25)));
    }

    [Fact]
    public async Task A_wrong_method_is_405_and_a_wrong_kind_of_content_415_each_as_a_problem_document()
    {
        await using var host = await TestHost.StartAsync();
        var ids = await FurnishAsync(host);
        var document = JsonNode
            .Parse(await host.Client.GetStringAsync("/api/openapi.json", TestContext.Current.CancellationToken))!
            .AsObject();
        foreach (var (path, methods) in document["paths"]!.AsObject())
        {
            var url = System.Text.RegularExpressions.Regex.Replace(
                path,
                @"\{[^}]*\}",
                m => m.Value == "{number}" ? "1" : ids["albums"][0].ToString()
            );
            using var wrong = await host.Client.SendAsync(
                new HttpRequestMessage(HttpMethod.Patch, url),
                TestContext.Current.CancellationToken
            );
            ((int)wrong.StatusCode).ShouldBe(405, url);
            wrong.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
            wrong.Content.Headers.Allow.Count.ShouldBeGreaterThan(0);
            foreach (var (method, operation) in methods!.AsObject().Where(o => o.Value!["requestBody"] is not null))
            {
                using var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), url)
                {
                    Content = new StringContent("x", null, "image/svg+xml"),
                };
                using var refused = await host.Client.SendAsync(request, TestContext.Current.CancellationToken);
                ((int)refused.StatusCode).ShouldBe(415, $"{method} {url}");
                refused.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
            }
        }
    }

    private static async Task<string?> TroubleAsync(TestHost host, RandomCall call)
    {
        using var request = new HttpRequestMessage(call.Operation.Method, call.Url);
        if (call.ContentType is { } type)
        {
            request.Content = new ByteArrayContent(call.Body);
            request.Content.Headers.ContentType = new(type);
        }

        var watch = Stopwatch.StartNew();
        using var response = await host.Client.SendAsync(request, TestContext.Current.CancellationToken);
        var text = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        var status = (int)response.StatusCode;
        var says =
            status >= 500 ? $"answered {status}"
            : status >= 400 && response.Content.Headers.ContentType?.MediaType != "application/problem+json"
                ? $"{status} without a problem document"
            : watch.Elapsed > Longest ? $"took {watch.Elapsed.TotalSeconds:0.0} s"
            : null;
        return says is null ? null : $"{call.Operation.Id} {says}\n{call}\n{text[..Math.Min(text.Length, 300)]}";
    }

    /// <summary>An album with something of everything, and the keys by what they are of.</summary>
    internal static async Task<Dictionary<string, IReadOnlyList<Guid>>> FurnishAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync();
        for (var i = 0; i < 4; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(800 + i, 600, $"2026:05:0{4 + i} 12:00:00", shade: 20 * i)
            );
        }

        var unit = await host.OpenAsync(album.Units[0].Id);
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "We walked.") { Revision = 0 }
        );
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var story = await host.EditStoriesAsync(
            album.Id,
            new NewStory("A story of a day.", "Title", [new NodaTime.LocalDate(2026, 5, 4)])
        );
        var leaves = (await host.GetAsync<List<BinderLeaf>>($"/api/albums/{album.Id}/leaves")).ConvertAll(l =>
            l.LeafId
        );
        List<Guid> pieces =
        [
            .. unit.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece?.Id).OfType<Guid>(),
            .. unit.LooseCards.Select(c => c.Id),
        ];
        var batch = await host.PostAsync<Importing.ImportView>($"/api/albums/{album.Id}/imports", new { });
        return new Dictionary<string, IReadOnlyList<Guid>>
        {
            ["albums"] = [album.Id],
            ["units"] = [.. album.Units.Select(u => u.Id)],
            ["unitIds"] = [.. album.Units.Select(u => u.Id)],
            ["unitId"] = [.. album.Units.Select(u => u.Id)],
            ["pieces"] = pieces,
            ["pieceId"] = pieces,
            ["photos"] = [.. unit.Photos.Select(p => p.Id)],
            ["photoId"] = [.. unit.Photos.Select(p => p.Id)],
            ["photoIds"] = [.. unit.Photos.Select(p => p.Id)],
            ["id"] = [.. unit.Photos.Select(p => p.Id)],
            ["stories"] = [story.StoryId ?? Guid.Empty],
            ["storyId"] = [story.StoryId ?? Guid.Empty],
            ["leaves"] = leaves,
            ["leafId"] = leaves,
            ["protectors"] = [.. album.Protectors.Select(p => p.Id)],
            ["protectorId"] = [.. album.Protectors.Select(p => p.Id)],
            ["imports"] = [batch.Id],
        };
    }
}
