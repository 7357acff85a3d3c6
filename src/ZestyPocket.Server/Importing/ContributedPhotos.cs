using System.Globalization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Importing;

/// <summary>What became of a picture of a contributor.</summary>
/// <param name="Photos">How many they have added by now.</param>
public sealed record ContributedPhoto(string FileName, bool Added, string Detail, int Photos, int MostPhotos);

/// <summary>
/// Pictures of somebody with a contributor's link: so many, so large, dated to the day that was asked about unless they
/// say it themselves. They arrive in Gather like any import.
/// </summary>
public sealed class ContributedPhotos(
    ZestyContext db,
    ContributorDoor door,
    ShareLog log,
    IPhotoVault vault,
    PhotoImport import,
    IClock clock
)
{
    /// <summary>Enough for a large snapshot of a phone. A choice of this program.</summary>
    public const long LargestFile = 40_000_000;

    public async Task<ContributedPhoto> TakeAsync(string? secret, string name, Stream content, CancellationToken cancel)
    {
        var link = await door.RequireAsync(secret, cancel);
        // Counted before it is taken, with a condition, so that many at once are not more than were allowed.
        if (await Slots(link).Where(l => l.Photos < l.MostPhotos).ExecuteUpdateAsync(Add(1), cancel) == 0)
        {
            throw Full(link);
        }

        var added = false;
        try
        {
            var outcome = await TakeAsync(link, name, content, cancel);
            added = outcome.Status == ImportStatus.Added;
            var photos = await db
                .ContributorLinks.Where(l => l.Id == link.Id)
                .Select(l => l.Photos)
                .SingleAsync(cancel);
            return new ContributedPhoto(
                outcome.FileName,
                added,
                added ? "Added" : outcome.Detail,
                added ? photos : photos - 1,
                link.MostPhotos
            );
        }
        finally
        {
            if (!added)
            {
                await Slots(link).ExecuteUpdateAsync(Add(-1), CancellationToken.None);
            }
        }
    }

    private async Task<ImportOutcome> TakeAsync(
        ContributorLink link,
        string name,
        Stream content,
        CancellationToken cancel
    )
    {
        using var arrived = await vault.ReceiveAsync(content, LargestFile, cancel);
        await EnsureBatchAsync(link, cancel);
        var line = new ImportFile
        {
            Id = Guid.CreateVersion7(),
            BatchId = link.Id,
            Key = string.Create(
                CultureInfo.InvariantCulture,
                $"{clock.GetCurrentInstant().ToUnixTimeTicks()}-{Guid.CreateVersion7():N}"
            ),
            FileName = PhotoImport.CleanName(name),
            Sha256 = arrived.Original.Sha256,
            Bytes = arrived.Original.Bytes,
            FolderDay = link.Day,
        };
        db.ImportFiles.Add(line);
        var outcome = await import.TakeAsync(link.AlbumId, name, arrived, null, line, cancel);
        if (outcome.Status == ImportStatus.Added)
        {
            log.Add(link.AlbumId, null, $"{link.Person} added the photo {outcome.FileName}");
            await db.SaveChangesAsync(cancel);
        }

        return outcome;
    }

    /// <summary>One import for each link, done at any time: nothing works on it in the background.</summary>
    private async Task EnsureBatchAsync(ContributorLink link, CancellationToken cancel) =>
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Imports" ("Id", "AlbumId", "KeeperId", "Source", "State", "CancelAsked", "MadeAt")
            VALUES ({link.Id}, {link.AlbumId}, {link.MadeBy}, {nameof(ImportSource.Contributor)},
                {nameof(ImportState.Done)}, false, {clock.GetCurrentInstant()})
            ON CONFLICT ("Id") DO NOTHING
            """,
            cancel
        );

    private static RuleException Full(ContributorLink link)
    {
        var most = NumberWords.CountedInWords(link.MostPhotos, "photo");
        return new RuleException(
            link.MostPhotos == 0
                ? "This link takes no photos. Nothing was added."
                : $"This link takes {most}, and that many are here. Nothing was added."
        );
    }

    private IQueryable<ContributorLink> Slots(ContributorLink link) => db.ContributorLinks.Where(l => l.Id == link.Id);

    private static Action<Microsoft.EntityFrameworkCore.Query.UpdateSettersBuilder<ContributorLink>> Add(int count) =>
        set => set.SetProperty(l => l.Photos, l => l.Photos + count);
}

/// <summary>The address for pictures of contributors.</summary>
public static class ContributedPhotoEndpoints
{
    public static void MapContributedPhotos(this IEndpointRouteBuilder api) =>
        api.MapPost(
                "/contribution/photos",
                (
                    [FromQuery] string name,
                    [FromHeader(Name = ContributorDoor.Header)] string? secret,
                    HttpRequest request,
                    ContributedPhotos photos,
                    CancellationToken cancel
                ) => photos.TakeAsync(secret, name, request.Body, cancel)
            )
            .WithTags("Importing")
            .WithName("addContributedPhoto")
            .AllowAnonymous()
            .RequireRateLimiting(RateLimits.Links)
            .Accepts<byte[]>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(ContributedPhotos.LargestFile + (1 << 20)))
            .WithProblems();
}
