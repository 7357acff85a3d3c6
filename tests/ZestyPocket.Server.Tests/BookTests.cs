using System.Diagnostics;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.Extensions.DependencyInjection;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Outline;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Tests;

/// <summary>Albums as books, read back by other readers: qpdf, pdftotext, pdfinfo, another library, exiftool.</summary>
public sealed partial class BookTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static readonly string[] Told = ["The first thing we saw was the heron.", "Then the lock opened slowly."];

    private static async Task<AlbumView> AlbumAsync(TestHost host)
    {
        var album = await host.MakeAlbumAsync("6x8-four-3x4");
        for (var i = 0; i < 6; i++)
        {
            var taken = $"2026:05:{4 + i:00} 1{i % 10}:00:00";
            await host.AddAsync(album.Id, $"{i}.jpg", Pictures.Jpeg(900 + i, 1200, taken, colourful: true));
        }

        for (var week = 0; week < 2; week++)
        {
            var unit = await host.OpenAsync(album.Units[week].Id);
            unit = await host.EditAsync(unit, new AddCard(CardKind.Journaling, Told[week]) { Revision = 0 });
            await host.EditAsync(unit, new FillSpread { Revision = 0 });
        }

        return await host.GetAsync<AlbumView>($"/api/albums/{album.Id}");
    }

    private static async Task<string> MakeAsync(
        TestHost host,
        Guid album,
        BookForm form,
        bool light,
        params Guid[] units
    )
    {
        var book = await host.PostAsync<BookView>(
            $"/api/albums/{album}/books",
            new BookRequest(Guid.NewGuid().ToString(), form, light, units)
        );
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<BookRunner>().RunAsync(book.Id, Cancel);
        var done = await host.GetAsync<BookView>($"/api/books/{book.Id}");
        (done.State, done.Problem, done.PagesDone).ShouldBe((JobState.Done, null, done.PagesTotal));
        var settings = host.Services.GetRequiredService<ZestySettings>();
        return BookRunner.PathOf(
            settings,
            new Book
            {
                Id = book.Id,
                Form = form,
                RequestKey = string.Empty,
            }
        );
    }

    private static async Task<string> RunAsync(string tool, params string[] arguments)
    {
        var start = new ProcessStartInfo(tool, arguments) { RedirectStandardOutput = true };
        using var process = Process.Start(start)!;
        var text = await process.StandardOutput.ReadToEndAsync(Cancel);
        await process.WaitForExitAsync(Cancel);
        process.ExitCode.ShouldBe(0, tool);
        return text;
    }

    [Fact]
    public async Task A_book_has_its_pages_in_reading_order_a_table_of_contents_and_words_that_can_be_read()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var path = await MakeAsync(host, album.Id, BookForm.Pages, light: false);
        await RunAsync("qpdf", "--check", path);
        // Four weeks of a left and a right page, and the cover.
        (await RunAsync("pdfinfo", path)).ShouldContain("Pages:           9");
        using (var pdf = PdfDocument.Open(path))
        {
            pdf.TryGetBookmarks(out var bookmarks).ShouldBeTrue();
            bookmarks
                .GetNodes()
                .OfType<DocumentBookmarkNode>()
                .Select(b => (b.Title, b.PageNumber))
                .ShouldBe([("Cover", 1), ("Week 19", 2), ("Week 20", 4), ("Week 21", 6), ("Week 22", 8)]);
            // 6 x 8 pockets with the ring strip and welds around them: 6 3/4 x 8 1/4 in. Common practice.
            pdf.GetPage(2).Width.ShouldBe(6.75 * 72, 0.01);
        }

        var text = Blanks().Replace(await RunAsync("pdftotext", path, "-"), " ");
        var at = Told.Select(t => text.IndexOf(t, StringComparison.Ordinal)).ToList();
        at.ShouldBe(at.Order());
        at.ShouldAllBe(i => i >= 0);
        // Tagged for screen readers (ISO 32000-1, 14.8): for each page what it shows, then its words in reading order.
        (await RunAsync("pdfinfo", path)).ShouldContain("Tagged:          yes");
        Blanks()
            .Replace(await RunAsync("pdfinfo", "-struct", path), " ")
            .ShouldStartWith("Document Sect Figure Sect H1 (block) Figure P (block) Sect Figure Sect H1 (block)");
        var said = JsonNode.Parse(await RunAsync("qpdf", "--json", "--json-key=qpdf", path))!["qpdf"]![1]!
            .AsObject()
            .Select(o => o.Value?["value"] as JsonObject)
            .Where(o => o?["/Type"]?.ToString() == "/StructElem")
            .Select(o => $"{o!["/S"]} {o["/ActualText"] ?? o["/Alt"]}")
            .ToList();
        said.Where(e => e.StartsWith("/P", StringComparison.Ordinal)).ShouldBe(Told.Select(t => $"/P u:{t}"));
        said.ShouldContain("/H1 u:Week 19");
        said.ShouldContain("/Figure u:Cover: Test year.");
        said.ShouldContain(e => e.StartsWith("/Figure u:Week 19, left page:", StringComparison.Ordinal));
        (await RunAsync("pdffonts", path))
            .Split('\n')
            .Skip(2)
            .Where(l => l.Length > 0)
            .ShouldAllBe(l => l.Contains(" yes "));
    }

    [Fact]
    public async Task A_book_of_spreads_shows_facing_pages_together_and_a_light_one_is_smaller()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var path = await MakeAsync(host, album.Id, BookForm.Spreads, light: false, [album.Units[0].Id]);
        using (var pdf = PdfDocument.Open(path))
        {
            pdf.NumberOfPages.ShouldBe(2);
            pdf.GetPage(2).Width.ShouldBe(2 * 6.75 * 72, 0.01);
        }

        var light = await MakeAsync(host, album.Id, BookForm.Spreads, light: true, [album.Units[0].Id]);
        new FileInfo(light).Length.ShouldBeLessThan(new FileInfo(path).Length);
    }

    [Fact]
    public async Task A_flip_through_is_one_file_that_asks_for_nothing_and_tells_nothing_of_where_pictures_were_taken()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        var path = await MakeAsync(host, album.Id, BookForm.FlipThrough, light: true);
        var html = await File.ReadAllTextAsync(path, Cancel);
        Addresses().Matches(html).ShouldAllBe(m => m.Groups[1].Value.StartsWith("data:image/jpeg;base64,"));
        html.ShouldNotContain("://");
        html.ShouldContain(Told[0]);
        Alternatives().Match(html).Groups[1].Value.ShouldBe("3 pictures and 1 card");
        var jpeg = Path.Combine(host.DataFolder, "page.jpg");
        await File.WriteAllBytesAsync(
            jpeg,
            Convert.FromBase64String(Addresses().Matches(html)[1].Groups[1].Value["data:image/jpeg;base64,".Length..]),
            Cancel
        );
        var tags = await RunAsync("exiftool", "-G", jpeg);
        tags.ShouldNotContain("[EXIF]");
        tags.ShouldNotContain("GPS");

        // The same pages as single pictures.
        using var zip = System.IO.Compression.ZipFile.OpenRead(
            await MakeAsync(host, album.Id, BookForm.Pictures, light: true, [album.Units[0].Id])
        );
        zip.Entries.Count.ShouldBeGreaterThan(1);
        zip.Entries[0].Name.ShouldBe("000 cover.jpg");
        foreach (var entry in zip.Entries)
        {
            await using var stream = await entry.OpenAsync(Cancel);
            using var bytes = new MemoryStream();
            await stream.CopyToAsync(bytes, Cancel);
            using var picture = NetVips.Image.NewFromBuffer(bytes.ToArray());
            (picture.Height, picture.GetFields().Contains("exif-data")).ShouldBe((990, false), "8 1/4 in at 120 ppi");
        }
    }

    [Fact]
    public async Task An_album_without_pages_makes_no_book_and_a_strange_unit_is_not_found()
    {
        await using var host = await TestHost.StartAsync();
        var album = await AlbumAsync(host);
        await host.RefusedAsync(
            404,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/books",
            new BookRequest("k", BookForm.Pages, false, [Guid.NewGuid()])
        );
        await host.RefusedAsync(
            404,
            HttpMethod.Post,
            $"/api/albums/{Guid.NewGuid()}/books",
            new BookRequest("l", BookForm.Pages, false, null)
        );
        var book = await host.PostAsync<BookView>(
            $"/api/albums/{album.Id}/books",
            new BookRequest("m", BookForm.Pages, false, null)
        );
        (
            (int)
                (await host.Client.GetAsync(new Uri($"/api/books/{book.Id}/file", UriKind.Relative), Cancel)).StatusCode
        ).ShouldBe(422);
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blanks();

    [GeneratedRegex("alt=\"Week 19, left page: ([^.]*)\\.")]
    private static partial Regex Alternatives();

    [GeneratedRegex("src=\"([^\"]*)\"")]
    private static partial Regex Addresses();
}
