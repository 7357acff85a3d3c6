using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.LookingOver;

/// <summary>Something to look at before printing.</summary>
/// <param name="Mend">The edit that mends it, on the unit as it was looked at; null when only the keeper can.</param>
/// <param name="Opens">Where it is mended instead; null when an edit does it, or only the keeper can.</param>
/// <param name="Accepted">The keeper is content with it.</param>
public sealed record AlbumFinding(
    FindingRule Rule,
    string Key,
    Guid? UnitId,
    string? UnitTitle,
    string Where,
    string Words,
    int Weight,
    UnitEdit? Mend,
    FindingRoom? Opens,
    string? MendLabel,
    bool Accepted
);

/// <summary>How a spread weighs: above 0 the right page or the lower half is heavier, −1 to 1.</summary>
public sealed record BalanceView(int Spread, double RightLessLeft, double FootLessHead);

/// <summary>What would make a spread less colourful.</summary>
/// <param name="Words">What is used instead, as in “Use …”.</param>
/// <param name="Edit">On the unit as it was looked at.</param>
/// <param name="After">How colourful the spread will be.</param>
/// <param name="Picture">Painted small, as a data address.</param>
public sealed record CalmerWayView(string Words, UnitEdit Edit, double After, string Picture);

/// <summary>How colourful a spread is, and what would make it calmer.</summary>
/// <param name="Most">What the album allows; null without a limit.</param>
/// <param name="Picture">As it is now, painted small, as a data address.</param>
public sealed record SpreadColoursView(
    double Colourfulness,
    double? Most,
    string Picture,
    IReadOnlyList<CalmerWayView> Ways
);

/// <summary>Looks over a unit, a stretch of an album, or all of it.</summary>
public static class FindingEndpoints
{
    public static void MapFindings(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("LookingOver");

        group
            .MapGet(
                "/albums/{id:guid}/findings",
                async (
                    Guid id,
                    [FromQuery] Guid? from,
                    [FromQuery] Guid? until,
                    AlbumLooker looker,
                    CancellationToken cancel
                ) => await looker.LookAsync(id, from, until, cancel)
            )
            .WithName("lookOver")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/balance",
                async (Guid id, UnitOpener opener, CancellationToken cancel) =>
                {
                    var desk = (await opener.OpenAsync(id, cancel)).Desk;
                    return SpreadBalance
                        .Of(desk, DeskQuestion.PocketsOf(desk))
                        .Select(b => new BalanceView(b.Spread, b.RightLessLeft, b.FootLessHead))
                        .ToList();
                }
            )
            .WithName("getBalance")
            .WithProblems();

        group
            .MapGet(
                "/units/{id:guid}/colours",
                async (
                    Guid id,
                    [FromQuery] int spread,
                    UnitOpener opener,
                    SpreadPages spreads,
                    FontShelf fonts,
                    CancellationToken cancel
                ) => await ColoursAsync(await opener.OpenAsync(id, cancel), spread, spreads, fonts, cancel)
            )
            .WithName("getColours")
            .WithProblems();
    }

    private static async Task<SpreadColoursView> ColoursAsync(
        OpenUnit open,
        int spread,
        SpreadPages spreads,
        FontShelf fonts,
        CancellationToken cancel
    )
    {
        var pockets = DeskQuestion.PocketsOf(open.Desk);
        var now =
            SpreadColours.Of(open.Desk, pockets).FirstOrDefault(s => s.Spread == spread)
            ?? throw new RuleException("Nothing lies on this spread yet: there are no colours to look at.");
        var tools = new EditTools(Guid.CreateVersion7, fonts);
        var ways = new List<CalmerWayView>();
        foreach (var way in CalmerWays.Of(open.Desk, pockets, spread, tools))
        {
            var content = way.Edit.Apply(open.Desk, tools).Content;
            ways.Add(
                new CalmerWayView(
                    way.Words,
                    way.Edit with
                    {
                        Revision = open.Unit.Revision,
                    },
                    way.After,
                    await spreads.PreviewAsync(open with { Content = content }, cancel)
                )
            );
        }

        return new SpreadColoursView(
            now.Colourfulness,
            open.Words.MostColourful,
            await spreads.PreviewAsync(open, cancel),
            ways
        );
    }
}

/// <summary>Looks over the units of an album and, when all are asked for, what only the whole shows.</summary>
public sealed class AlbumLooker(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    PlacedPieces placed,
    StoriesOfDays stories,
    FontShelf fonts
)
{
    public async Task<IReadOnlyList<AlbumFinding>> LookAsync(
        Guid albumId,
        Guid? from,
        Guid? until,
        CancellationToken cancel
    )
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var ids = await db
            .Units.AsNoTracking()
            .Where(u => u.AlbumId == albumId)
            .OrderBy(u => u.Ordinal)
            .Select(u => u.Id)
            .ToListAsync(cancel);
        var whole = from is null;
        if (from is { } first)
        {
            var (start, end) = (ids.IndexOf(first), ids.IndexOf(until ?? first));
            if (start < 0 || end < 0)
            {
                throw new MissingException("That week or day");
            }

            ids = ids.GetRange(Math.Min(start, end), Math.Abs(end - start) + 1);
        }

        var open = await opener.OpenManyAsync(ids, cancel);
        var findings = new List<Finding>();
        foreach (var unit in open)
        {
            cancel.ThrowIfCancellationRequested();
            findings.AddRange(UnitLook.Over(unit.Unit.Id, unit.Desk, fonts));
        }

        findings.AddRange(await UntoldAsync(albumId, open, cancel));

        var printed = await db
            .PrintedPieces.AsNoTracking()
            .Where(p => p.AlbumId == albumId)
            .Select(p => p.PieceId)
            .ToHashSetAsync(cancel);
        findings.AddRange(await ChangedAsync(open, printed, cancel));
        if (whole)
        {
            findings.AddRange(PaperLook.Over(HasToPrint(open, printed), await PrintersAsync(album.KeeperId, cancel)));
            var told = await db
                .Stories.AsNoTracking()
                .Where(s => s.AlbumId == albumId)
                .Select(s => s.Words)
                .ToListAsync(cancel);
            findings.AddRange(
                AlbumLook.Over(
                    [.. open.Select(u => new UnitToLook(u.Unit.Id, u.Desk))],
                    album.ReadCalendar().Series.ToDictionary(s => s.Id, s => s.Name),
                    told
                )
            );
        }

        var words = album.ReadWords();
        var unitOf = open.ToDictionary(u => u.Unit.Id);
        return
        [
            .. findings
                .DistinctBy(f => f.Key)
                .OrderByDescending(f => f.Weight)
                .Select(f =>
                {
                    var unit = f.UnitId is { } of ? unitOf.GetValueOrDefault(of) : null;
                    return new AlbumFinding(
                        f.Rule,
                        f.Key,
                        f.UnitId,
                        unit?.Title,
                        f.Where,
                        f.Words,
                        f.Weight,
                        unit is null || f.Mend is null ? null : f.Mend with { Revision = unit.Unit.Revision },
                        f.Opens,
                        f.MendLabel,
                        words.Accepts(f.Key)
                    );
                }),
        ];
    }

    /// <summary>Only units of which something was printed are compared with it.</summary>
    /// <summary>A story may stand on cards of another unit than those of its days.</summary>
    private async Task<IReadOnlyList<Finding>> UntoldAsync(
        Guid albumId,
        IReadOnlyList<OpenUnit> open,
        CancellationToken cancel
    )
    {
        var told = await stories.OfAsync(open, cancel);
        if (told.Count == 0)
        {
            return [];
        }

        var units = await db.Units.AsNoTracking().Where(u => u.AlbumId == albumId).ToListAsync(cancel);
        var onCards = units
            .SelectMany(u => u.Read().Pieces.OfType<Card>())
            .Select(c => c.StoryId)
            .OfType<Guid>()
            .ToHashSet();
        // A story of several days that lie in several units is told once, in the first of them.
        var seen = new HashSet<Guid>();
        return
        [
            .. open.SelectMany(u =>
                UnitLook.Untold(u.Unit.Id, u.Desk, told[u.Unit.Id].Where(s => seen.Add(s.Id)), onCards)
            ),
        ];
    }

    private async Task<IEnumerable<Finding>> ChangedAsync(
        IReadOnlyList<OpenUnit> open,
        HashSet<Guid> printed,
        CancellationToken cancel
    )
    {
        var units = open.Where(u => u.Content.Pieces.Any(p => printed.Contains(p.Id))).ToList();
        var standing = (await placed.StandingAsync(units, cancel)).ToLookup(s => s.Standing.UnitId);
        return units.SelectMany(u =>
            PaperLook.Over(
                u.Unit.Id,
                u.Title,
                [
                    .. standing[u.Unit.Id]
                        .Select(s => new PieceOnPaper(s.Standing.PieceId, s.Standing.Number, s.Standing.Standing)),
                ]
            )
        );
    }

    private static bool HasToPrint(IEnumerable<OpenUnit> open, HashSet<Guid> printed) =>
        open.Any(u =>
            u.Content.Placements.Any(p => !printed.Contains(p.PieceId) && u.Content.Find(p.PieceId) is not Keepsake)
        );

    private async Task<IReadOnlyList<PrinterOnDesk>> PrintersAsync(Guid keeperId, CancellationToken cancel) =>
        [
            .. (
                await db
                    .Printers.AsNoTracking()
                    .Where(p => p.KeeperId == keeperId)
                    .OrderBy(p => p.MadeAt)
                    .ToListAsync(cancel)
            ).Select(p => new PrinterOnDesk(p.Id, p.Name, p.MeasuredAt is null ? null : p.Fault(), p.MakesUp)),
        ];
}
