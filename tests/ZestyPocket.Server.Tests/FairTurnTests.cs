using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>Slow files of one album hold up neither the imports nor the prints of others.</summary>
public sealed class FairTurnTests
{
    [Trait("Duration", "Long")]
    [Fact]
    public async Task Eight_slow_PDFs_are_set_aside_while_another_import_and_a_print_go_on()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var (slow, other) = (await host.MakeAlbumAsync(), await host.MakeAlbumAsync());
        var heavy = await ImportJobTests.BeginAsync(host, slow);
        for (var i = 0; i < 8; i++)
        {
            await ImportJobTests.SendAsync(host, heavy, $"{i}", $"slow{i}.pdf", SlowPdf(i));
        }

        await host.PostAsync<ImportView>($"/api/imports/{heavy}/close", new { });
        var light = await ImportJobTests.BeginAsync(host, other);
        for (var i = 0; i < 6; i++)
        {
            await ImportJobTests.SendAsync(host, light, $"{i}", $"{i}.jpg", Pictures.Jpeg(600 + i));
        }

        var unit = await host.OpenAsync(other.Units[0].Id);
        var (face, pocket) = (unit.Faces[0], unit.Faces[0].Pockets[0]);
        await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Filler, Place: new PocketPlace(face.LeafId, face.Side, pocket.Key))
            {
                Revision = 0,
            }
        );
        var print = await host.PostAsync<PrintJobView>(
            "/api/print-jobs",
            new PrintRequest("fair", [unit.Id], "letter", "1/4 in", "0")
        );
        var done = await ImportJobTests.DoneAsync(host, light);
        (await PrintingTests.UntilEndedAsync(host, print)).State.ShouldBe(JobState.Done);
        done.Added.ShouldBe(6);
        // The slow ones still wait: whoever came later did not wait for them.
        var behind = await host.GetAsync<ImportView>($"/api/imports/{heavy}");
        behind.State.ShouldBe(ImportState.Working);
        behind.Waiting.ShouldBeGreaterThan(0);
        // None was refused for being slow at first: each is set aside and taken up again with more time.
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
            limit.CancelAfter(TimeSpan.FromMinutes(3));
            while (await db.ImportFiles.CountAsync(f => f.BatchId == heavy && f.SetAside, limit.Token) < 8)
            {
                await Task.Delay(100, limit.Token);
            }
        }

        await host.PostAsync<ImportView>($"/api/imports/{heavy}/cancel", new { });
    }

    /// <summary>A page of 3 kB that draws a form of forms of forms: sixteen to the fifth power of them.</summary>
    private static byte[] SlowPdf(int number)
    {
        var objects = new List<string>
        {
            "<< /Type /Catalog /Pages 2 0 R >>",
            "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
            $"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 {600 + number} 800] /Contents 4 0 R /Resources << "
                + "/XObject << /F 5 0 R >> >> >>",
        };
        var many = string.Concat(Enumerable.Repeat("/F Do ", 16));
        objects.Add(Stream("", many));
        for (var depth = 0; depth < 6; depth++)
        {
            objects.Add(
                depth == 5
                    ? Stream("/Type /XObject /Subtype /Form /BBox [0 0 600 800]", "0 0 600 800 re f")
                    : Stream(
                        "/Type /XObject /Subtype /Form /BBox [0 0 600 800] /Resources << /XObject << /F "
                            + $"{6 + depth} 0 R >> >>",
                        many
                    )
            );
        }

        var text = new System.Text.StringBuilder("%PDF-1.4\n");
        var places = new List<int>();
        foreach (var (item, i) in objects.Select((o, i) => (o, i)))
        {
            places.Add(text.Length);
            text.Append(System.Globalization.CultureInfo.InvariantCulture, $"{i + 1} 0 obj\n{item}\nendobj\n");
        }

        var start = text.Length;
        text.Append(
            System.Globalization.CultureInfo.InvariantCulture,
            $"xref\n0 {objects.Count + 1}\n0000000000 65535 f \n"
        );
        places.ForEach(p =>
            text.Append(System.Globalization.CultureInfo.InvariantCulture, $"{p:0000000000} 00000 n \n")
        );
        text.Append(
            System.Globalization.CultureInfo.InvariantCulture,
            $"trailer << /Size {objects.Count + 1} /Root 1 0 R >>\nstartxref\n{start}\n%%EOF\n"
        );
        return System.Text.Encoding.Latin1.GetBytes(text.ToString());

        static string Stream(string entries, string content) =>
            $"<< {entries} /Length {content.Length} >>\nstream\n{content}\nendstream";
    }
}
