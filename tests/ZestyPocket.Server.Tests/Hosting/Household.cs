using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Tests.Fuzzing;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>What several people do at one server.</summary>
internal static class Household
{
    public const string Password = "plum duff at dawn";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public static async Task<string> FirstSecretAsync(TestHost host)
    {
        await using var scope = host.Services.CreateAsyncScope();
        var path = await scope.ServiceProvider.GetRequiredService<Accounts>().FirstLinkAsync(Cancel);
        return SecretOf(path!);
    }

    public static string SecretOf(string path) => path.Split('#')[1];

    public static Task<HttpResponseMessage> SendAsync(HttpClient client, string path, object body) =>
        client.PostAsync(new Uri(path, UriKind.Relative), TestHost.Written(body), Cancel);

    public static async Task<HttpClient> MakeAsync(TestHost host, string secret, string name)
    {
        var client = host.Browser();
        var made = await SendAsync(client, "/api/accounts", new NewAccountRequest(secret, name, Password));
        made.StatusCode.ShouldBe(HttpStatusCode.OK, await made.Content.ReadAsStringAsync(Cancel));
        return client;
    }

    /// <summary>Two keepers of one household, each in a browser of their own.</summary>
    public static async Task<(TestHost Ada, TestHost Ben)> TwoAsync(TestHost host)
    {
        var ada = host.As(await MakeAsync(host, await FirstSecretAsync(host), "Ada"));
        return (ada, await AnotherAsync(ada, "Ben"));
    }

    /// <summary>One more keeper, by a link of somebody who is here.</summary>
    public static async Task<TestHost> AnotherAsync(TestHost by, string name)
    {
        var link = await by.PostAsync<AccountLinkView>("/api/account-links", new { });
        return by.As(await MakeAsync(by, SecretOf(link.Path), name));
    }

    /// <summary>Lets somebody come to an album.</summary>
    public static async Task ShareAsync(TestHost owner, TestHost guest, Guid album, AlbumRole role)
    {
        var link = await owner.PostAsync<LinkView>(
            $"/api/albums/{album}/invitations",
            new InvitationRequest("a guest", role, 7, 1)
        );
        await guest.PostAsync<InvitedView>("/api/invitations/accept", new SecretRequest(SecretOf(link.Path)));
    }

    /// <summary>Sends the one member of an album away.</summary>
    public static async Task SendAwayAsync(TestHost owner, Guid album)
    {
        var member = (await owner.GetAsync<SharingView>($"/api/albums/{album}/sharing")).Members.Single().KeeperId;
        using var sent = await owner.Client.DeleteAsync(
            new Uri($"/api/albums/{album}/members/{member}", UriKind.Relative),
            Cancel
        );
        sent.StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    public static bool Owned(Dictionary<string, IReadOnlyList<Guid>> ids, Guid id) =>
        ids.Values.Any(v => v.Contains(id));

    public static async Task<RandomCalls> CallsAsync(
        TestHost host,
        Dictionary<string, IReadOnlyList<Guid>> ids,
        int seed
    )
    {
        var document = JsonNode.Parse(await host.Client.GetStringAsync("/api/openapi.json", Cancel))!.AsObject();
        return new RandomCalls(
            document,
            seed,
            name => ids.GetValueOrDefault(name) ?? ids.GetValueOrDefault(name.TrimEnd('s') + "s") ?? []
        );
    }

    public static async Task<HttpResponseMessage> AnswerAsync(HttpClient client, RandomCall call)
    {
        using var request = new HttpRequestMessage(call.Operation.Method, call.Url);
        if (call.ContentType is { } type)
        {
            request.Content = new ByteArrayContent(call.Body);
            request.Content.Headers.ContentType = new(type);
        }

        // Not to its end: a line of news has none.
        return await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, Cancel);
    }
}
