using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Printing;

/// <summary>A plan with the faces to draw it with.</summary>
public sealed record PreparedRun(
    string Album,
    PrintPlan Plan,
    IReadOnlyDictionary<(Guid PieceId, int Part), PieceFace> Faces,
    IReadOnlyDictionary<Guid, Guid> UnitOf,
    IReadOnlyList<string> Doubts,
    IReadOnlyList<(string Number, IReadOnlyList<HandStep> Steps)> ByHand,
    IReadOnlyDictionary<Guid, string> Recipes,
    IReadOnlyList<PieceStanding> Standing
)
{
    /// <summary>The pieces of the plan.</summary>
    public IReadOnlyList<DuePiece> Due { get; init; } = [];

    /// <summary>By unit, what its files are called by: <c>2026-W14</c>, <c>2026-D3</c>.</summary>
    public IReadOnlyDictionary<Guid, string> UnitNames { get; init; } = new Dictionary<Guid, string>();

    /// <summary>How its keeper measures.</summary>
    public MeasureSystem Measures { get; init; } = MeasureSystem.Inches;

    /// <summary>Sheets, pieces that are larger than them, keys.</summary>
    public int Pages =>
        Plan.Sheets.Length
        + Plan.TooLarge.Length
        + Plan.Tiles.Length
        + (2 * Plan.Carriers.Length)
        + SheetPainter.KeyPages(Plan);
}

/// <summary>Plans the sheets of one or more weeks and draws them.</summary>
public sealed class PrintRun(
    UnitOpener opener,
    PlacedPieces placed,
    PiecePainter painter,
    FontShelf fonts,
    PrintPlans plans,
    PaperDrawer drawer,
    ZestyContext db,
    ICurrentKeeper keeper
)
{
    public const int MostUnits = 60;

    private readonly SheetPainter _sheets = new(painter, fonts);

    /// <summary>Reads the printer's settings as the keeper wrote them.</summary>
    public static PrinterSetup Setup(string paperKey, string margin, string gap)
    {
        var paper = Paper.Find(paperKey) ?? throw new RuleException($"There is no paper “{paperKey}”.");
        return new PrinterSetup(
            paper,
            MeasureText.ParseLengthOrNone(margin),
            MeasureText.ParseLengthOrNone(gap)
        ).Checked();
    }

    /// <summary>The setup with everything that is known of the keeper's papers and printer.</summary>
    public Task<PrinterSetup> SetupAsync(SetupAsked asked, CancellationToken cancel) =>
        SetupAsync(asked, keeper.Id, cancel);

    /// <inheritdoc cref="SetupAsync(SetupAsked, CancellationToken)"/>
    public async Task<PrinterSetup> SetupAsync(SetupAsked asked, Guid keeperId, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(asked);
        var plain = Setup(asked.PaperKey, asked.Margin, asked.Gap);
        // A printer that was deleted since makes up for nothing.
        var printer = asked.PrinterId is { } id
            ? await db.Printers.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id && p.KeeperId == keeperId, cancel)
            : null;
        return (
            plain with
            {
                Options = asked.Options,
                OnHand = await drawer.OnHandAsync(keeperId, plain.Paper.Key, cancel),
                MakesUpFor = printer is { MakesUp: true } ? printer.Fault() : PrinterFault.None,
                BackOffset = printer is null ? default : (printer.BackRight, printer.BackDown),
            }
        ).Checked();
    }

    /// <summary>Collects the wanted pieces of the weeks, in album order, and packs the sheets.</summary>
    public async Task<PreparedRun> PrepareAsync(
        IReadOnlyList<Guid> unitIds,
        PrinterSetup setup,
        WantedPieces wanted,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(unitIds);
        if (unitIds.Count is 0 or > MostUnits)
        {
            throw new RuleException($"Choose 1 to {MostUnits} weeks or days to print at once.");
        }

        var opened = await opener.OpenManyAsync(unitIds, cancel);
        if (opened.Count < unitIds.Distinct().Count())
        {
            throw new MissingException("That week or day");
        }

        var due = placed.Of(opened);
        var standing = await placed.StandingAsync(due, wanted, cancel);
        var wantedIds = standing.Where(s => s.OnSheets).Select(s => s.PieceId).ToHashSet();
        List<DuePiece> pieces = [.. due.Pieces.Where(p => wantedIds.Contains(p.PieceId))];
        return new PreparedRun(
            opened[^1].Album.Name,
            plans.For(pieces, setup, cancel),
            due.Faces,
            due.UnitOf,
            [
                .. due.Doubts.Where(d => wantedIds.Contains(d.PieceId)).Select(d => d.Words),
                .. OneSideOnly(pieces, setup),
            ],
            [.. due.ByHand.Where(h => wantedIds.Contains(h.PieceId)).Select(h => (h.Number, h.Steps))],
            due.Recipes,
            standing
        )
        {
            Due = pieces,
            UnitNames = opened.ToDictionary(
                u => u.Unit.Id,
                u => string.Create(CultureInfo.InvariantCulture, $"{u.Dates.First.Year:0000}-{u.Dates.Code}")
            ),
            Measures = opened[^1].Album.Measures,
        };
    }

    /// <summary>Backs on paper that takes print on one side only.</summary>
    private static IEnumerable<string> OneSideOnly(List<DuePiece> pieces, PrinterSetup setup) =>
        pieces
            .Where(p =>
                p.Back is not null
                && setup.OnHand.Any(h => !h.BothSides && h.Stock == p.Stock && h.Paper.Key == setup.Paper.Key)
            )
            .Select(p =>
                $"{p.Number}: your {Stocks.Name(p.Stock)} takes print on one side only, and this piece has a back."
            );

    /// <summary>Draws one planned sheet, in points.</summary>
    public void DrawSheet(
        SkiaSharp.SKCanvas canvas,
        PreparedRun run,
        int index,
        double pixelsPerInch,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(run);
        _sheets.Draw(
            canvas,
            run.Plan.Sheets[index],
            run.Plan.SetupOf(run.Plan.Sheets[index]),
            new SheetHeading(run.Album, index + 1, run.Plan.Sheets.Length),
            due => run.Faces[(due.PieceId, due.Part)],
            pixelsPerInch,
            cancel
        );
    }

    /// <summary>All pages of the run: the sheets, then the key. What the printer does wrong is made up for.</summary>
    public IEnumerable<PdfPage> Pages(PreparedRun run, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(run);
        var fault = run.Plan.Setup.MakesUpFor;
        return TruePages(run, cancel)
            .Select(page =>
                fault == PrinterFault.None
                    ? page
                    : page with
                    {
                        Draw = canvas => PrintCorrection.Draw(canvas, fault, page.Draw),
                    }
            );
    }

    private IEnumerable<PdfPage> TruePages(PreparedRun run, CancellationToken cancel)
    {
        for (var i = 0; i < run.Plan.Sheets.Length; i++)
        {
            var (index, sheet) = (i, run.Plan.Sheets[i]);
            var on = run.Plan.SetupOf(sheet);
            yield return PageOf(
                on.Paper.Size,
                canvas =>
                {
                    if (sheet.Side is SheetSide.Back or SheetSide.Numbers)
                    {
                        // The printer sets this side aside by so much: it is drawn back by as much.
                        canvas.Translate(-(float)on.BackOffset.Right.Points, -(float)on.BackOffset.Down.Points);
                    }

                    DrawSheet(canvas, run, index, PixelsPerInch, cancel);
                }
            ) with
            {
                Trim = TrimOf(sheet, on),
                BleedPt = on.Options.Bleed.Points,
            };
        }

        foreach (var due in run.Plan.TooLarge)
        {
            var face = run.Faces[(due.PieceId, due.Part)];
            yield return PageOf(
                SheetPainter.OwnPage(due),
                canvas => _sheets.DrawOwnPage(canvas, due, run.Album, face, PixelsPerInch)
            ) with
            {
                Trim = new Rect(SheetPainter.OwnPageBorder, SheetPainter.OwnPageBorder, due.Cut),
            };
        }

        var (setup, size) = (run.Plan.Setup, run.Plan.Setup.Paper.Size);
        foreach (var tile in run.Plan.Tiles)
        {
            var face = run.Faces[(tile.Due.PieceId, tile.Due.Part)];
            yield return PageOf(size, canvas => _sheets.DrawTile(canvas, tile, setup, run.Album, face, PixelsPerInch));
        }

        foreach (var carrier in run.Plan.Carriers)
        {
            foreach (var words in new[] { false, true })
            {
                yield return PageOf(
                    size,
                    canvas =>
                        _sheets.DrawCarrier(
                            canvas,
                            carrier,
                            setup,
                            run.Album,
                            due => run.Faces[(due.PieceId, due.Part)],
                            PixelsPerInch,
                            words
                        )
                );
            }
        }

        for (var key = 0; key < SheetPainter.KeyPages(run.Plan); key++)
        {
            var first = key * 4;
            yield return PageOf(
                SheetPainter.KeySize(run.Plan),
                canvas => _sheets.DrawKey(canvas, run.Plan, run.Album, first, run.Measures)
            );
        }
    }

    private const double PixelsPerInch = Core.Photos.Resolution.PrintPixelsPerInch;

    private static PdfPage PageOf(Size size, Action<SkiaSharp.SKCanvas> draw) =>
        new(size.Width.Points, size.Height.Points, draw);

    /// <summary>What is cut out of a sheet that bleeds; null for one that does not.</summary>
    private static Rect? TrimOf(PlannedSheet sheet, PrinterSetup setup)
    {
        if (setup.Options.Bleed <= Length.Zero || sheet.Pieces.IsEmpty)
        {
            return null;
        }

        var (x, y) = (sheet.Pieces.Min(p => p.Bounds.X), sheet.Pieces.Min(p => p.Bounds.Y));
        var (right, bottom) = (sheet.Pieces.Max(p => p.Bounds.Right), sheet.Pieces.Max(p => p.Bounds.Bottom));
        return new Rect(x, y, right - x, bottom - y);
    }

    /// <summary>Each caution once, the makers' instructions first.</summary>
    private static IReadOnlyList<string> Cautions(PreparedRun run)
    {
        var own = run
            .ByHand.SelectMany(h => h.Steps)
            .Select(s => s.Kind)
            .Distinct()
            .Order()
            .Select(HandStep.Caution)
            .OfType<string>()
            .ToList();
        return own.Count == 0 ? [] : [HandStep.MakersFirst, .. own];
    }

    private static string OnCarriers(PrintPlan plan) =>
        plan.Carriers.IsEmpty
            ? string.Empty
            : $" {NumberWords.Counted(CardsOf(plan), "bought card is", "bought cards are")} printed on "
                + (plan.Carriers.Length == 1 ? "a carrier sheet." : $"{plan.Carriers.Length} carrier sheets.");

    private static int CardsOf(PrintPlan plan) => plan.Carriers.Sum(c => c.Pieces.Length);

    private static int InTiles(PrintPlan plan) => plan.Tiles.Select(t => t.Due).Distinct().Count();

    private static string InParts(PrintPlan plan) =>
        plan.Tiles.IsEmpty
            ? string.Empty
            : $" {NumberWords.Counted(InTiles(plan), "piece is", "pieces are")} larger than the paper and printed in "
                + $"{plan.Tiles.Length} parts.";

    private static int Parts(DuePiece due, PrintPlan plan) => Tiling.Of(due, plan.Setup.ForParts).Length;

    private static string NothingOn(PreparedRun run) =>
        run.Standing.Count == 0 ? "Nothing lies in a pocket yet: place some pieces first."
        : run.Standing.All(p => p.Standing == PrintStanding.Printed)
            ? "Everything here is printed as it is. Choose everything, or single pieces, to print it again."
        : "Choose the pieces to print.";

    public PrintPlanView View(PreparedRun run, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(run);
        var plan = run.Plan;
        var pieces = plan.Sheets.Where(s => s.Side != SheetSide.Numbers).Sum(s => s.Pieces.Length);
        var byStock = plan
            .Sheets.GroupBy(s => s.Stock)
            .Select(g =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{g.Count()} {(g.Count() == 1 ? "sheet" : "sheets")} of {SheetPainter.Name(g.Key)}"
                )
            );
        var words =
            run.Pages == 0 ? NothingOn(run)
            : pieces + plan.TooLarge.Length + plan.Tiles.Length == 0 ? OnCarriers(plan).Trim()
            : pieces + plan.Tiles.Length == 0
                ? $"{NumberWords.Counted(plan.TooLarge.Length, "piece")}, larger than the paper."
            : pieces == 0 ? InParts(plan).Trim()
            : $"{NumberWords.Counted(pieces, "piece")} on {NumberWords.Listed([.. byStock])}.{InParts(plan)}"
                + OnCarriers(plan);
        return new PrintPlanView(
            pieces + plan.TooLarge.Length + CardsOf(plan) + InTiles(plan),
            [
                .. plan.Sheets.Select(
                    (s, i) =>
                        new SheetView(
                            i + 1,
                            s.Stock,
                            SheetPainter.Name(s.Stock),
                            [.. s.Pieces.Select(p => p.Due.Number)],
                            s.Cuts.Length,
                            plan.SetupOf(s).Paper.Name,
                            s.Side,
                            s.LeftoverId is not null,
                            s.Side is SheetSide.Only or SheetSide.Front
                                ? TrimmerCuts.InWords(TrimmerCuts.Of(s, plan.SetupOf(s)), run.Measures)
                                : string.Empty
                        )
                ),
            ],
            [
                .. plan.TooLarge.Select(d =>
                    $"{d.Number} ({d.Cut}) is larger than {plan.Setup.Paper.Name}: it comes as a PDF page of its "
                    + $"own size, for larger paper or a print shop. It can be printed in {Parts(d, plan)} parts "
                    + "on this paper instead, or ordered from the lab."
                ),
            ],
            words,
            run.Doubts,
            [.. run.ByHand.Select(h => new HandWork(h.Number, [.. h.Steps.Select(s => s.Says())]))],
            Cautions(run),
            run.Standing,
            plan.IsProved,
            plans.SavingsOf(run.Due, plan, cancel)
        );
    }
}
