using System.Security.Cryptography;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Storage.Tests;

public sealed class VaultTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("zesty-vault-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public async Task An_original_lies_under_the_hash_of_its_content()
    {
        var bytes = RandomNumberGenerator.GetBytes(300_000);
        var vault = new FolderVault(_folder);
        using var arrived = await vault.ReceiveAsync(
            new MemoryStream(bytes),
            1_000_000,
            TestContext.Current.CancellationToken
        );
        arrived.Original.Sha256.ShouldBe(Core.Photos.ContentHash.Of(SHA256.HashData(bytes)));
        arrived.Original.Bytes.ShouldBe(bytes.Length);
        arrived.Keep();
        File.ReadAllBytes(vault.PathOf(arrived.Original.Sha256)).ShouldBe(bytes);
    }

    [Fact]
    public async Task What_is_not_kept_leaves_nothing_behind()
    {
        var vault = new FolderVault(_folder);
        (await vault.ReceiveAsync(new MemoryStream([1, 2, 3]), 10, TestContext.Current.CancellationToken)).Dispose();
        Directory.GetFiles(_folder, "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_parked_waits_there_until_it_is_kept_whatever_goes_wrong_meanwhile()
    {
        var (vault, key) = (new FolderVault(_folder), Guid.NewGuid());
        StoredOriginal original;
        using (
            var arrived = await vault.ReceiveAsync(
                new MemoryStream([1, 2, 3]),
                10,
                TestContext.Current.CancellationToken
            )
        )
        {
            arrived.Park(key);
            original = arrived.Original;
        }

        // Taken up by a job that failed.
        vault.TakeUp(key, original).Dispose();
        using (var again = vault.TakeUp(key, original))
        {
            File.ReadAllBytes(again.Path).ShouldBe([1, 2, 3]);
            again.Keep();
        }

        // Kept, but the job was killed before its row was written.
        vault.TakeUp(key, original).Path.ShouldBe(vault.PathOf(original.Sha256));
        File.Delete(vault.PathOf(original.Sha256));
        Should.Throw<FileNotFoundException>(() => vault.TakeUp(key, original));
    }

    [Fact]
    public async Task A_stream_that_breaks_leaves_nothing_behind()
    {
        var vault = new FolderVault(_folder);
        await Should.ThrowAsync<IOException>(() =>
            vault.ReceiveAsync(new BreakingStream(), 10_000_000, TestContext.Current.CancellationToken)
        );
        Directory.GetFiles(_folder, "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Fact]
    public async Task An_endless_stream_ends_soon_after_the_limit()
    {
        var vault = new FolderVault(_folder);
        using var arrived = await vault.ReceiveAsync(
            new EndlessStream(),
            1_000_000,
            TestContext.Current.CancellationToken
        );
        arrived.Original.Bytes.ShouldBeInRange(1_000_001, 1_200_000);
    }

    private class EndlessStream : MemoryStream
    {
        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) =>
            ValueTask.FromResult(buffer.Length);
    }

    private sealed class BreakingStream : EndlessStream
    {
        private int _reads;

        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) =>
            ++_reads > 3 ? throw new IOException("The cable was pulled.") : base.ReadAsync(buffer, cancellationToken);
    }
}
