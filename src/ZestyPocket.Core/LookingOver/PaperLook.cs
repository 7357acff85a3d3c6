using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.LookingOver;

/// <summary>A placed piece as paper knows it.</summary>
/// <param name="Number">Such as <c>W19 L5</c>.</param>
public sealed record PieceOnPaper(Guid PieceId, string Number, PrintStanding Standing);

/// <summary>A printer as its test sheet left it.</summary>
/// <param name="Fault">What was measured; null when nothing was.</param>
/// <param name="MakesUp">Its sheets make up for that.</param>
public sealed record PrinterOnDesk(Guid Id, string Name, PrinterFault? Fault, bool MakesUp);

/// <summary>Looks over what paper says of an album. Common practice.</summary>
public static class PaperLook
{
    /// <summary>So many pieces are named; the rest are counted.</summary>
    private const int Named = 4;

    /// <summary>What of a unit was printed and has changed since.</summary>
    /// <param name="title">Of the unit.</param>
    public static IReadOnlyList<Finding> Over(Guid unitId, string title, IReadOnlyList<PieceOnPaper> pieces)
    {
        ArgumentNullException.ThrowIfNull(pieces);
        var changed = pieces.Where(p => p.Standing == PrintStanding.Changed).ToList();
        if (changed.Count == 0)
        {
            return [];
        }

        var names = string.Join(", ", changed.Take(Named).Select(p => p.Number));
        var rest = changed.Count > Named ? $" and {changed.Count - Named} more" : "";
        var verb = changed.Count == 1 ? "has" : "have";
        return
        [
            new Finding(
                FindingRule.PrintedChanged,
                $"{FindingRule.PrintedChanged} {unitId} {string.Join(' ', changed.Select(p => p.PieceId).Order())}",
                unitId,
                null,
                title,
                $"{NumberWords.Counted(changed.Count, "piece")} {verb} changed since the print: {names}{rest}.",
                2
            )
            {
                Opens = FindingRoom.Sheets,
                MendLabel = "Print again",
            },
        ];
    }

    /// <summary>
    /// Whether what is still to be printed will come out in its size: a keeper without a printer here prints elsewhere
    /// or does not know yet.
    /// </summary>
    /// <param name="toPrint">Something is still to be printed.</param>
    public static IReadOnlyList<Finding> Over(bool toPrint, IReadOnlyList<PrinterOnDesk> printers)
    {
        ArgumentNullException.ThrowIfNull(printers);
        if (!toPrint)
        {
            return [];
        }

        return printers.Count == 0
            ? [Of("none", "No printer", "No printer was measured: prints may come out smaller than their pockets.")]
            :
            [
                .. printers
                    .Where(p => p.Fault is null or { IsTrue: false } && !(p.MakesUp && p.Fault is not null))
                    .Select(p =>
                        Of(
                            p.Fault is null ? $"{p.Id}" : $"{p.Id} {p.Fault.ScaleX:R} {p.Fault.ScaleY:R}",
                            p.Name,
                            p.Fault is null
                                ? "This printer was not measured: prints may come out smaller than their pockets."
                                : $"{p.Fault.Verdict()} Its sheets do not make up for that."
                        )
                    ),
            ];

        static Finding Of(string about, string where, string words) =>
            new(
                FindingRule.PrinterNotMeasured,
                $"{FindingRule.PrinterNotMeasured} {about}",
                null,
                null,
                where,
                words,
                3
            )
            {
                Opens = FindingRoom.Printers,
                MendLabel = "Print a test sheet",
            };
    }
}
