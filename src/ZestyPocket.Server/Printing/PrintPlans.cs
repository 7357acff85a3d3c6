using System.Security.Cryptography;
using System.Text;
using Microsoft.Extensions.Caching.Memory;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>
/// Plans of sheets by what is on them: looking at one sheet after another, and printing them, packs them once. A plan
/// of the same pieces for the same printer is the same plan, so nothing in here ever gets old.
/// </summary>
public sealed class PrintPlans(ISheetCovering covering) : IDisposable
{
    /// <summary>Most pieces of all the plans that are kept.</summary>
    private const int MostPieces = 50_000;

    private readonly MemoryCache _plans = new(new MemoryCacheOptions { SizeLimit = MostPieces });

    public PrintPlan For(IReadOnlyList<DuePiece> due, PrinterSetup setup, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(setup);
        var key = KeyOf(due, setup);
        return _plans.TryGetValue(key, out PrintPlan? known)
            ? known!
            : _plans.Set(
                key,
                PrintPlan.For(due, setup, covering, cancel),
                new MemoryCacheEntryOptions { Size = due.Count + 1 }
            );
    }

    /// <summary>When these pieces would take fewer sheets otherwise.</summary>
    public IReadOnlyList<string> SavingsOf(IReadOnlyList<DuePiece> due, PrintPlan plan, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(plan);
        var key = $"savings {KeyOf(due, plan.Setup)}";
        return _plans.TryGetValue(key, out IReadOnlyList<string>? known)
            ? known!
            : _plans.Set<IReadOnlyList<string>>(
                key,
                SheetSavings.Of(due, plan, covering, cancel),
                new MemoryCacheEntryOptions { Size = 1 }
            );
    }

    public void Dispose() => _plans.Dispose();

    private static string KeyOf(IReadOnlyList<DuePiece> due, PrinterSetup setup)
    {
        var text = new StringBuilder();
        text.Append(
            System.Globalization.CultureInfo.InvariantCulture,
            $"{setup.Paper.Key} {setup.Margin.Emu} {setup.Gap.Emu} {setup.MakesUpFor} {setup.Options} "
                + $"{setup.BackOffset} {string.Join(';', setup.OnHand)}"
        );
        foreach (var piece in due)
        {
            text.Append(
                System.Globalization.CultureInfo.InvariantCulture,
                $"|{piece.PieceId} {piece.Part} {piece.Number} {piece.Stock} "
                    + $"{piece.Cut.Width.Emu} {piece.Cut.Height.Emu} {piece.Back} {piece.OnCarrier} {piece.Marks}"
            );
        }

        return Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())));
    }
}
