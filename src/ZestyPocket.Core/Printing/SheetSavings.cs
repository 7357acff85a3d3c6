using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>Says when the same pieces would take fewer sheets otherwise.</summary>
public static class SheetSavings
{
    /// <summary>Most home printers reach this near to the edge. Common practice.</summary>
    private static Length NarrowMargin => Length.FromMillimetres(3);

    /// <summary>
    /// Sentences such as “With margins of 3 mm these pieces take 24 sheets instead of 29.” None for a single sheet.
    /// </summary>
    public static ImmutableArray<string> Of(
        IReadOnlyList<DuePiece> due,
        PrintPlan plan,
        ISheetCovering? covering,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(plan);
        var (setup, now) = (plan.Setup, plan.SheetsOfPaper + plan.TooLarge.Length);
        if (plan.SheetsOfPaper < 2)
        {
            return [];
        }

        return
        [
            .. Otherwise(setup)
                .Select(o => (o.Words, Sheets: Sheets(o.Setup)))
                .Where(o => o.Sheets < now)
                .Select(o =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{o.Words} these pieces take {NumberWords.Counted(o.Sheets, "sheet")} instead of {now}."
                    )
                ),
        ];

        int Sheets(PrinterSetup other)
        {
            var otherwise = PrintPlan.For(due, other, covering, cancel);
            return otherwise.SheetsOfPaper + otherwise.TooLarge.Length;
        }
    }

    private static IEnumerable<(string Words, PrinterSetup Setup)> Otherwise(PrinterSetup setup)
    {
        if (setup.Margin > NarrowMargin)
        {
            yield return ("If your printer reaches to 3 mm from the edge,", setup with { Margin = NarrowMargin });
        }

        if (setup.Gap > Length.Zero)
        {
            yield return ("With shared cuts (no gap)", setup with { Gap = Length.Zero });
        }

        if (setup.Options.UnitPerSheet)
        {
            yield return (
                "With several weeks or days on a sheet",
                setup with
                {
                    Options = setup.Options with { UnitPerSheet = false },
                }
            );
        }

        foreach (var paper in new[] { Paper.Letter, Paper.A4 }.Where(p => p.Key != setup.Paper.Key))
        {
            // A larger paper always takes fewer: only one of about the same size is worth a word.
            if (Math.Abs((double)(paper.Size.SquareInches / setup.Paper.Size.SquareInches) - 1) < 0.1)
            {
                yield return ($"On {paper.Name}", setup with { Paper = paper });
            }
        }
    }
}
