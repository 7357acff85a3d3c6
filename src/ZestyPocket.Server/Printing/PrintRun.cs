using System.Globalization;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;

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
    /// <summary>Sheets, pieces that are larger than them, keys.</summary>
    public int Pages => Plan.Sheets.Length + Plan.TooLarge.Length + Plan.Carriers.Length + SheetPainter.KeyPages(Plan);
}

/// <summary>Plans the sheets of one or more weeks and draws them.</summary>
public sealed class PrintRun(
    UnitOpener opener,
    PlacedPieces placed,
    PiecePainter painter,
    FontShelf fonts,
    PrintPlans plans
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
        var numbers = standing.Where(s => s.OnSheets).Select(s => s.Number).ToList();
        return new PreparedRun(
            opened[^1].Album.Name,
            plans.For([.. due.Pieces.Where(p => wantedIds.Contains(p.PieceId))], setup, cancel),
            due.Faces,
            due.UnitOf,
            [.. due.Doubts.Where(d => numbers.Exists(n => IsOf(d, n)))],
            [.. due.ByHand.Where(h => numbers.Contains(h.Number))],
            due.Recipes,
            standing
        );
    }

    /// <summary>A doubt begins with the number of its piece, or of that piece's back.</summary>
    private static bool IsOf(string doubt, string number) =>
        doubt.StartsWith($"{number}:", StringComparison.Ordinal)
        || doubt.StartsWith($"{number} back:", StringComparison.Ordinal);

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
            run.Plan.Setup,
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
        var size = run.Plan.Setup.Paper.Size;
        for (var i = 0; i < run.Plan.Sheets.Length; i++)
        {
            var index = i;
            yield return new PdfPage(
                size.Width.Points,
                size.Height.Points,
                canvas => DrawSheet(canvas, run, index, Core.Photos.Resolution.PrintPixelsPerInch, cancel)
            );
        }

        foreach (var due in run.Plan.TooLarge)
        {
            var own = SheetPainter.OwnPage(due);
            yield return new PdfPage(
                own.Width.Points,
                own.Height.Points,
                canvas =>
                    _sheets.DrawOwnPage(
                        canvas,
                        due,
                        run.Album,
                        run.Faces[(due.PieceId, due.Part)],
                        Core.Photos.Resolution.PrintPixelsPerInch
                    )
            );
        }

        foreach (var due in run.Plan.Carriers)
        {
            yield return new PdfPage(
                size.Width.Points,
                size.Height.Points,
                canvas =>
                    _sheets.DrawCarrier(
                        canvas,
                        due,
                        run.Plan.Setup,
                        run.Album,
                        run.Faces[(due.PieceId, due.Part)],
                        Core.Photos.Resolution.PrintPixelsPerInch
                    )
            );
        }

        for (var key = 0; key < SheetPainter.KeyPages(run.Plan); key++)
        {
            var first = key * 4;
            var own = SheetPainter.KeySize(run.Plan);
            yield return new PdfPage(
                own.Width.Points,
                own.Height.Points,
                canvas => _sheets.DrawKey(canvas, run.Plan, run.Album, first)
            );
        }
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
            : $" {NumberWords.Counted(plan.Carriers.Length, "bought card is", "bought cards are")} printed on a "
                + "carrier sheet.";

    private static string NothingOn(PreparedRun run) =>
        run.Standing.Count == 0 ? "Nothing lies in a pocket yet: place some pieces first."
        : run.Standing.All(p => p.Standing == PrintStanding.Printed)
            ? "Everything here is printed as it is. Choose everything, or single pieces, to print it again."
        : "Choose the pieces to print.";

    public static PrintPlanView View(PreparedRun run)
    {
        ArgumentNullException.ThrowIfNull(run);
        var plan = run.Plan;
        var pieces = plan.Sheets.Sum(s => s.Pieces.Length);
        var byStock = plan
            .Sheets.GroupBy(s => s.Stock)
            .Select(g =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{g.Count()} {(g.Count() == 1 ? "sheet" : "sheets")} of {SheetPainter.Name(g.Key)}"
                )
            );
        var words =
            pieces + plan.TooLarge.Length + plan.Carriers.Length == 0 ? NothingOn(run)
            : pieces + plan.TooLarge.Length == 0 ? OnCarriers(plan).Trim()
            : pieces == 0 ? $"{NumberWords.Counted(plan.TooLarge.Length, "piece")}, larger than the paper."
            : $"{NumberWords.Counted(pieces, "piece")} on {NumberWords.Listed([.. byStock])}.{OnCarriers(plan)}";
        return new PrintPlanView(
            pieces + plan.TooLarge.Length + plan.Carriers.Length,
            [
                .. plan.Sheets.Select(
                    (s, i) =>
                        new SheetView(
                            i + 1,
                            s.Stock,
                            SheetPainter.Name(s.Stock),
                            [.. s.Pieces.Select(p => p.Due.Number)],
                            s.Cuts.Length
                        )
                ),
            ],
            [
                .. plan.TooLarge.Select(d =>
                    $"{d.Number} ({d.Cut}) is larger than {plan.Setup.Paper.Name}: it comes as a PDF page of its "
                    + "own size, for larger paper or a print shop."
                ),
            ],
            words,
            run.Doubts,
            [.. run.ByHand.Select(h => new HandWork(h.Number, [.. h.Steps.Select(s => s.Says())]))],
            Cautions(run),
            run.Standing
        );
    }
}
