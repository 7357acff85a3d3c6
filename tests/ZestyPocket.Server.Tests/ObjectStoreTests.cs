using System.Diagnostics;
using System.Net.Http.Json;
using System.Security.Cryptography;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>The vault in an object store, against a server of the S3 protocol (npm s3rver).</summary>
public sealed class ObjectStoreTests : IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-objects-").FullName;
    private Process? _server;
    private ObjectStoreSettings _settings = new();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        (_server, _settings) = await ObjectStoreServer.StartAsync(_folder);
    }

    public ValueTask DisposeAsync()
    {
        _server?.Kill(entireProcessTree: true);
        _server?.Dispose();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    private async Task<(ObjectStoreVault Vault, string Folder)> VaultAsync(string name, int megabytes = 1_000)
    {
        var store = new ObjectStore(_settings);
        await store.EnsureAsync(Cancel);
        var folder = Path.Combine(_folder, name);
        return (new ObjectStoreVault(store, folder, megabytes), folder);
    }

    private static byte[] Bytes(int seed, int length)
    {
        var bytes = new byte[length];
        new Random(seed).NextBytes(bytes);
        return bytes;
    }

    [Fact]
    public async Task What_one_server_keeps_another_reads_byte_for_byte_and_what_is_removed_is_gone_everywhere()
    {
        var (one, _) = await VaultAsync("one");
        var (two, _) = await VaultAsync("two");
        var content = Bytes(1, 20_000_000);
        using var arrived = await one.ReceiveAsync(new MemoryStream(content), 30_000_000, Cancel);
        arrived.Keep();
        var sha = arrived.Original.Sha256;
        sha.ShouldBe(ContentHash.Of(SHA256.HashData(content)));
        (await File.ReadAllBytesAsync(two.PathOf(sha), Cancel)).AsSpan().SequenceEqual(content).ShouldBeTrue();
        two.Remove(sha);
        one.Remove(sha);
        File.Exists(one.PathOf(sha)).ShouldBeFalse();
        File.Exists(two.PathOf(sha)).ShouldBeFalse();
    }

    [Fact]
    public async Task A_file_parked_at_one_server_is_taken_up_at_another_and_a_dropped_one_is_gone()
    {
        var (one, _) = await VaultAsync("one");
        var (two, _) = await VaultAsync("two");
        var (key, dropped) = (Guid.NewGuid(), Guid.NewGuid());
        var original = await ParkAsync(one, key, 2);
        await ParkAsync(one, dropped, 3);
        using (var taken = two.TakeUp(key, original))
        {
            taken.Keep();
        }

        (await File.ReadAllBytesAsync(one.PathOf(original.Sha256), Cancel)).ShouldBe(Bytes(2, 5_000));
        two.ParkedBefore(DateTime.UtcNow.AddMinutes(5)).ShouldBe([key, dropped], ignoreOrder: true);
        two.DropParked(dropped);
        two.DropParked(key);
        one.ParkedBefore(DateTime.UtcNow.AddMinutes(5)).ShouldBeEmpty();
        Should.Throw<FileNotFoundException>(() =>
            two.TakeUp(dropped, new StoredOriginal(ContentHash.Parse(new string('0', 64)), 1))
        );

        static async Task<StoredOriginal> ParkAsync(ObjectStoreVault vault, Guid under, int seed)
        {
            using var arrived = await vault.ReceiveAsync(new MemoryStream(Bytes(seed, 5_000)), 10_000, Cancel);
            arrived.Park(under);
            return arrived.Original;
        }
    }

    [Fact]
    public async Task Of_originals_a_machine_holds_those_used_last_and_fetches_the_others_again()
    {
        var (vault, folder) = await VaultAsync("one", megabytes: 1);
        var hashes = new List<ContentHash>();
        for (var i = 0; i < 4; i++)
        {
            using var arrived = await vault.ReceiveAsync(new MemoryStream(Bytes(10 + i, 400_000)), 1_000_000, Cancel);
            arrived.Keep();
            hashes.Add(arrived.Original.Sha256);
        }

        vault.SweepArriving(DateTime.UtcNow.AddDays(-1));
        Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Sum(f => new FileInfo(f).Length)
            .ShouldBeLessThanOrEqualTo(1_000_000);
        for (var i = 0; i < 4; i++)
        {
            (await File.ReadAllBytesAsync(vault.PathOf(hashes[i]), Cancel)).ShouldBe(Bytes(10 + i, 400_000));
        }
    }

    [Fact]
    public async Task An_album_in_the_store_is_imported_shown_and_printed_at_another_server()
    {
        await using var one = await TestHost.WithStoreAsync(_settings);
        await using var two = one.Twin();
        var album = await one.MakeAlbumAsync();
        await one.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(900, 600, "2026:05:04 12:00:00"));
        var photo = (await two.OpenAsync(album.Units[0].Id)).Photos.ShouldHaveSingleItem();
        var picture = await two.Client.GetAsync(
            new Uri($"/api/photos/{photo.Id}/picture?side=400", UriKind.Relative),
            Cancel
        );
        picture.IsSuccessStatusCode.ShouldBeTrue(await picture.Content.ReadAsStringAsync(Cancel));

        // A book that one server made is fetched at the other.
        await one.EditAsync(await one.OpenAsync(album.Units[0].Id), new FillSpread { Revision = TestHost.Latest });
        var asked = await two.PostAsync<BookView>(
            $"/api/albums/{album.Id}/books",
            new BookRequest("one", BookForm.Pages, true, [album.Units[0].Id])
        );
        await RunAsync<BookRunner>(one, r => r.RunAsync(asked.Id, Cancel));

        var file = await two.Client.GetByteArrayAsync(new Uri($"/api/books/{asked.Id}/file", UriKind.Relative), Cancel);
        file.AsSpan(0, 5).SequenceEqual("%PDF-"u8).ShouldBeTrue();
    }

    [Fact]
    public async Task A_bundle_that_one_server_writes_is_fetched_restored_and_deleted_at_another()
    {
        await using var one = await TestHost.WithStoreAsync(_settings);
        await using var two = one.Twin();
        var album = await one.MakeAlbumAsync();
        await one.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(900, 600, "2026:05:04 12:00:00"));
        var asked = await two.PostAsync<BackupView>("/api/backups", new BackupRequest("one", [album.Id]));
        await RunAsync<BackupRunner>(one, r => r.RunAsync(asked.Id, Cancel));
        var bundle = await two.Client.GetByteArrayAsync(
            new Uri($"/api/backups/{asked.Id}/file", UriKind.Relative),
            Cancel
        );

        // Sent to one server, read back at the other.
        using var content = new ByteArrayContent(bundle);
        content.Headers.ContentType = new("application/octet-stream");
        using var sent = await two.Client.PostAsync(
            new Uri("/api/restores?requestKey=back", UriKind.Relative),
            content,
            Cancel
        );
        var restore = (await sent.Content.ReadFromJsonAsync<RestoreView>(TestHost.Json, Cancel))!;
        await RunAsync<RestoreRunner>(one, r => r.RunAsync(restore.Id, Cancel));
        var done = await two.GetAsync<RestoreView>($"/api/restores/{restore.Id}");
        done.State.ShouldBe(JobState.Done, string.Join(" ", done.Report));
        (await two.GetAsync<AlbumView>($"/api/albums/{done.AlbumIds.Single()}")).Units.Count.ShouldBe(
            album.Units.Count
        );

        using var deleted = await two.Client.DeleteAsync(new Uri($"/api/backups/{asked.Id}", UriKind.Relative), Cancel);
        deleted.IsSuccessStatusCode.ShouldBeTrue();
        using var store = new ObjectStore(_settings);
        (await store.ListAsync("made/", Cancel)).ShouldBeEmpty("what is deleted or restored lies nowhere");
    }

    private static async Task RunAsync<T>(TestHost host, Func<T, Task> run)
        where T : notnull
    {
        await using var scope = host.Services.CreateAsyncScope();
        await run(scope.ServiceProvider.GetRequiredService<T>());
    }
}
