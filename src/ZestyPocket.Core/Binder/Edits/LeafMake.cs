using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>A kind of leaf that an album may not have yet.</summary>
/// <param name="Kind">
/// Pockets for a page design; a page outside the pockets, a fold-out, a divider, the envelope.
/// </param>
/// <param name="DesignKey">Of a page design, built in or from the keeper's collection.</param>
/// <param name="Size">
/// Of a page outside the pockets or a fold-out, as written; the outer size of the album's protectors when not given.
/// </param>
/// <param name="Fold">How far from the ring edge a fold-out is folded, as written.</param>
public sealed record LeafMake(LeafKind Kind, string? DesignKey = null, string? Size = null, string? Fold = null)
{
    /// <summary>
    /// The binder with a protector of this kind, in use. One the album knows is taken again. Throws
    /// <see cref="RuleException"/> for one that cannot be.
    /// </summary>
    public (RingBinder Binder, OwnedProtector Protector) In(RingBinder binder, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(binder);
        ArgumentNullException.ThrowIfNull(tools);
        var owned = (Known(binder) ?? new OwnedProtector(tools.NewId(), Made(binder, tools))) with { GivenUp = false };
        return (binder.With(owned), owned);
    }

    /// <summary>The protector of this kind that the album knows, in use or given up; null when there is none.</summary>
    public OwnedProtector? Known(RingBinder binder)
    {
        ArgumentNullException.ThrowIfNull(binder);
        var key = Kind == LeafKind.Pockets ? DesignKey : OutsidePockets(binder).Design.Key;
        return binder.Protectors.FirstOrDefault(p => p.Protector.Design.Key == key);
    }

    private Protector Made(RingBinder binder, AlbumTools tools)
    {
        if (Kind != LeafKind.Pockets)
        {
            return OutsidePockets(binder);
        }

        var made =
            (DesignKey is null ? null : tools.FindDesign(DesignKey))
            ?? throw new RuleException($"There is no page design “{DesignKey}”. Nothing was changed.");
        var design = made.Design;
        return design.Body.Width > binder.Body.Width || design.Body.Height > binder.Body.Height
            ? throw new RuleException(
                $"“{design.Name}” is for pages of {design.Body}; this album's pages are {binder.Body}, and a leaf "
                    + "cannot be larger than they are. Nothing was changed."
            )
            : made.Like(Usual(binder));
    }

    private Protector OutsidePockets(RingBinder binder)
    {
        var usual = Usual(binder);
        return Kind switch
        {
            LeafKind.Sheet => Sheet(usual),
            LeafKind.FoldOut => FoldOut(usual),
            LeafKind.Divider or LeafKind.Envelope => Protector
                .WithoutPockets(Kind == LeafKind.Divider ? "divider" : "envelope", Kind, usual.Outer, usual.RingStrip)
                .Like(usual),
            _ => throw new RuleException("There is no such kind of leaf. Nothing was changed."),
        };
    }

    private Protector Sheet(Protector usual)
    {
        var size = string.IsNullOrWhiteSpace(Size) ? usual.Outer : MeasureText.ParseSize(Size);
        return Protector
            .Sheet($"sheet-{size.Width.Emu}x{size.Height.Emu}", size, usual.RingStrip)
            .Like(usual)
            .Checked();
    }

    private Protector FoldOut(Protector usual)
    {
        var size = string.IsNullOrWhiteSpace(Size)
            ? throw new RuleException("A fold-out needs the size of its sheet, such as 6x8. Nothing was changed.")
            : MeasureText.ParseSize(Size);
        var fold = string.IsNullOrWhiteSpace(Fold)
            ? throw new RuleException(
                "A fold-out needs the distance from the ring edge to the fold, such as 3 1/2 in. Nothing was changed."
            )
            : MeasureText.ParseLength(Fold);
        return fold > usual.Outer.Width || size.Height > usual.Outer.Height
            ? throw new RuleException(
                $"Folded, the sheet would be {MeasureText.ShortName(new Size(fold, size.Height))} and stick out of "
                    + $"pages of {MeasureText.ShortName(usual.Outer)}. Nothing was changed: fold it nearer to the "
                    + "rings or cut it lower."
            )
            : Protector
                .FoldOut($"foldout-{size.Width.Emu}x{size.Height.Emu}-{fold.Emu}", size, fold, usual.RingStrip)
                .Like(usual)
                .Checked();
    }

    /// <summary>The first protector of pockets: what others are measured like.</summary>
    private static Protector Usual(RingBinder binder) =>
        binder.Protectors.Select(p => p.Protector).First(p => p.Form.Kind == LeafKind.Pockets);
}
