using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>Whoever runs the program may say how much a keeper has room for.</summary>
public sealed class QuotaTests
{
    [Fact]
    public async Task A_photo_beyond_the_quota_is_refused_with_what_is_used_and_the_others_stay()
    {
        await using var host = await TestHost.WithQuotaAsync(megabytes: 1);
        var album = await host.MakeAlbumAsync();
        // Three tenths of a million bytes each: noise does not compress.
        var outcomes = new List<ImportStatus>();
        for (var i = 0; i < 6; i++)
        {
            outcomes.Add((await host.AddAsync(album.Id, $"{i}.png", Pictures.NoisePng(330, 300, seed: i))).Status);
        }

        outcomes.ShouldBe([
            ImportStatus.Added,
            ImportStatus.Added,
            ImportStatus.Added,
            ImportStatus.Refused,
            ImportStatus.Refused,
            ImportStatus.Refused,
        ]);
        var refused = await host.AddAsync(album.Id, "more.png", Pictures.NoisePng(330, 300, seed: 9));
        refused.Detail.ShouldContain("of 1 MB");
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Id.ShouldBe(album.Id);
    }
}
