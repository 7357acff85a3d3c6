using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>What goes into a cell.</summary>
public sealed record WrittenCell(string Key, Guid? PhotoId, string? Words);

/// <summary>
/// A collage as it is asked for. Without a layout the pictures get the one in which they lose least, with so many cells
/// for words besides.
/// </summary>
public sealed record WrittenCollage(
    string Size,
    IReadOnlyList<Guid> PhotoIds,
    int? WordCells = null,
    string? Layout = null,
    string? Gutter = null,
    IReadOnlyList<WrittenCell>? Cells = null
)
{
    internal Collage Read(UnitDesk desk, Guid id, Collage? old)
    {
        var size = MeasureText.ParseSize(Size);
        var gutter = ReadGutter(old);
        var photos = PhotoIds
            .Distinct()
            .Select(p =>
                desk.Photos.GetValueOrDefault(p)
                ?? throw new RuleException("A photo of the collage is not here any more. Nothing was changed.")
            )
            .ToList();
        var ground = old?.Ground ?? Rgb.Read("#ffffff");
        if (Layout is not null && Cells is not null)
        {
            var cells = Cells.Select(c => new CollageCell(
                c.Key,
                c.PhotoId,
                c.PhotoId is { } p && desk.Photos.TryGetValue(p, out var photo) ? photo.Around : Framing.Middle,
                c.Words is null ? string.Empty : PlainWords.Clean(c.Words)
            ));
            return new Collage(id, DesignDraft.Read(Layout).Notation, [.. cells], gutter, ground).Checked();
        }

        if (photos.Count == 0)
        {
            throw new RuleException("A collage has at least one picture. Nothing was changed.");
        }

        var (best, cellOf, _) = CollageLayouts.Best(
            size,
            [.. photos.Select(p => p.Photo.Pixels)],
            WordCells ?? 0,
            gutter
        );
        var kept = old?.Cells.Where(c => c.PhotoId is null && c.Words.Length > 0).Select(c => c.Words).ToList() ?? [];
        var free = DesignDraft.Read(best).Pockets.Select(p => p.Key).Except(cellOf);
        return new Collage(
            id,
            best,
            [
                .. photos.Select((p, i) => new CollageCell(cellOf[i], p.Id, p.Around, string.Empty)),
                .. free.Select(
                    (key, i) => new CollageCell(key, null, Framing.Middle, i < kept.Count ? kept[i] : string.Empty)
                ),
            ],
            gutter,
            ground
        ).Checked();
    }

    private Length ReadGutter(Collage? old)
    {
        if (string.IsNullOrWhiteSpace(Gutter))
        {
            return old?.Gutter ?? Collage.UsualGutter;
        }

        var written = Gutter.Trim();
        return written == "0" || written.StartsWith("0 ", StringComparison.Ordinal)
            ? Length.Zero
            : MeasureText.ParseLength(Gutter);
    }
}

/// <summary>Makes a collage, in the tray or straight in a pocket.</summary>
public sealed record AddCollage(WrittenCollage Collage, PocketPlace? Place = null) : ContentEdit
{
    public override string Label() => "Make a collage";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => Place is { } place ? [place] : [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var collage = Collage.Read(desk, tools.NewId(), null);
        var added = desk.Content.AddCollage(collage);
        return new Edited(
            Place is { } place ? added.Put(collage.Id, desk.Require(place)) : added,
            $"Made a collage of {NumberWords.Of(collage.Photos.Count())} pictures",
            collage.Id
        );
    }
}

/// <summary>Changes the pictures, the words, the layout or the gutter of a collage.</summary>
public sealed record ChangeCollage(Guid PieceId, WrittenCollage Collage) : ContentEdit
{
    public override string Label() => "Change a collage";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var old =
            desk.Content.Find(PieceId) as Collage
            ?? throw new RuleException("That collage is no longer here. Nothing was changed.");
        return new Edited(
            desk.Content.ChangeCollage(Collage.Read(desk, PieceId, old)),
            $"Changed a collage{desk.Where(PieceId)}",
            PieceId
        );
    }
}
