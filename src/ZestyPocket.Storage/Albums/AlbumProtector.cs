using System.Collections.Immutable;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>A make of page protector that an album uses, with its measures.</summary>
public sealed class AlbumProtector : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public int Ordinal { get; set; }

    public required string DesignKey { get; set; }

    public Length OuterWidth { get; set; }

    public Length OuterHeight { get; set; }

    public Length RingStrip { get; set; }

    public Length Ease { get; set; }

    /// <summary>How many leaves of it are owned for this album; null when they never run out.</summary>
    public int? OnHand { get; set; }

    /// <summary>The album does not use it any more; leaves that have it keep it, and it can come back.</summary>
    public bool Gone { get; set; }

    /// <summary>Measured clear sizes: <see cref="Documents.ClearSizes"/> as JSON.</summary>
    public string ClearSizes { get; set; } = "[]";

    /// <summary>Its kind, rings, holes and thickness: a <see cref="ProtectorForm"/> as JSON.</summary>
    public string Form { get; set; } = "{}";

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    private (object Of, Protector Made)? _made;

    /// <summary>The protector as the rules know it; worked out once for every face that has it.</summary>
    public Protector ToProtector()
    {
        object of = (DesignKey, OuterWidth, OuterHeight, RingStrip, Ease, ClearSizes, Form);
        if (_made is not { } known || !known.Of.Equals(of))
        {
            _made = known = (of, Made());
        }

        return known.Made;
    }

    private Protector Made()
    {
        var form = StoredDocuments.ProtectorForm.Read(Form);
        var outer = new Size(OuterWidth, OuterHeight);
        var made = form.Kind switch
        {
            LeafKind.Sheet => Protector.Sheet(DesignKey, outer, RingStrip),
            LeafKind.FoldOut => Protector.FoldOut(
                DesignKey,
                outer,
                form.Fold ?? throw new RuleException("A fold-out without a fold."),
                RingStrip
            ),
            LeafKind.Divider or LeafKind.Envelope => Protector.WithoutPockets(DesignKey, form.Kind, outer, RingStrip),
            _ => Protector.Unmeasured(DesignOf(form)),
        };
        var clear = StoredDocuments
            .ClearSizes.Read(ClearSizes)
            .Sizes.ToImmutableDictionary(
                c => new Size(c.NominalWidth, c.NominalHeight),
                c => new Size(c.ClearWidth, c.ClearHeight)
            );
        // The name of a page outside the pockets follows from its measures.
        return made with
        {
            Outer = outer,
            RingStrip = RingStrip,
            ClearSizes = clear,
            Ease = Ease,
            Form = form with { Name = made.Form.Name ?? form.Name },
        };
    }

    private PageDesign DesignOf(ProtectorForm form) =>
        form.Notation is { } notation
            ? PageDesign.FromNotation(DesignKey, form.Name ?? DesignKey, notation)
            : BuiltInDesigns.Find(DesignKey)
                ?? throw new RuleException(
                    $"The page design “{DesignKey}” is not known to this version of the program."
                );

    /// <summary>A row for a protector of an album.</summary>
    public static AlbumProtector From(Protector protector, int ordinal)
    {
        ArgumentNullException.ThrowIfNull(protector);
        var row = new AlbumProtector
        {
            Id = Guid.CreateVersion7(),
            DesignKey = protector.Design.Key,
            Ordinal = ordinal,
        };
        row.Measure(protector);
        return row;
    }

    /// <summary>Takes over what was measured on a protector of the same design.</summary>
    public void Measure(Protector protector)
    {
        ArgumentNullException.ThrowIfNull(protector);
        (OuterWidth, OuterHeight) = (protector.Outer.Width, protector.Outer.Height);
        (RingStrip, Ease) = (protector.RingStrip, protector.Ease);
        Form = StoredDocuments.ProtectorForm.Write(protector.Form);
        ClearSizes = StoredDocuments.ClearSizes.Write(
            new ClearSizes([
                .. protector
                    .ClearSizes.OrderBy(c => c.Key.Width)
                    .ThenBy(c => c.Key.Height)
                    .Select(c => new ClearSize(c.Key.Width, c.Key.Height, c.Value.Width, c.Value.Height)),
            ])
        );
    }
}
