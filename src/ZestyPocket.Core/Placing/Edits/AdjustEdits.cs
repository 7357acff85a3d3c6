using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>A print and how it is to differ from its picture; null as the picture is.</summary>
public sealed record AdjustedPrint(Guid PieceId, PictureAdjustment? Adjustment = null);

/// <summary>Straightens prints, makes them lighter or takes their colour.</summary>
public sealed record AdjustPhotos(IReadOnlyList<AdjustedPrint> Prints) : ContentEdit
{
    public override string Label() => "Adjust a picture";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var prints = (Prints ?? []).OfType<AdjustedPrint>().DistinctBy(p => p.PieceId).ToList();
        if (prints.Count == 0)
        {
            throw new RuleException("Choose at least one print. Nothing was changed.");
        }

        var content = prints.Aggregate(desk.Content, (made, p) => made.Adjust(p.PieceId, p.Adjustment));
        var what =
            prints.Count == 1
                ? $"the picture{desk.Where(prints[0].PieceId)}"
                : NumberWords.Counted(prints.Count, "picture");
        return new Edited(
            content,
            prints.TrueForAll(p => p.Adjustment is null or { IsNone: true })
                ? $"Restored {what} to the original"
                : $"Adjusted {what}",
            prints[0].PieceId
        );
    }
}

/// <summary>
/// Brings the light of the unit's prints nearer to each other, see <see cref="MatchedLight"/>; how they are
/// straightened and whether they have colour stays.
/// </summary>
/// <param name="PieceIds">The prints; all whole prints in pockets when there are none.</param>
public sealed record MatchLight(IReadOnlyList<Guid>? PieceIds = null) : ContentEdit
{
    public override string Label() => "Match the light of the pictures";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var chosen = PieceIds is { Count: > 0 } ids ? ids.ToHashSet() : null;
        var prints = desk
            .Content.Placements.Where(p => desk.Pages.CodeOf(p.Place) is not null)
            .Select(p => desk.Content.Find(p.PieceId))
            .OfType<PhotoPrint>()
            .Where(p => p.SpanId is null && desk.Photos.ContainsKey(p.PhotoId) && chosen?.Contains(p.Id) != false)
            .ToList();
        var lighter = MatchedLight.Of([.. prints.Select(p => desk.Photos[p.PhotoId].Tone)]);
        var changed = prints
            .Select(
                (print, i) => (print, To: (print.Adjustment ?? PictureAdjustment.None) with { Lighter = lighter[i] })
            )
            .Where(p => p.To != (p.print.Adjustment ?? PictureAdjustment.None))
            .ToList();
        if (changed.Count == 0)
        {
            throw new RuleException(
                "The pictures are as light as each other already, or dark or light by nature. Nothing was changed."
            );
        }

        return new Edited(
            changed.Aggregate(desk.Content, (content, p) => content.Adjust(p.print.Id, p.To)),
            $"Matched the light of {NumberWords.Counted(changed.Count, "picture")}"
        );
    }
}

/// <summary>
/// Gives prints the look of another: its finish, its light and colour. Each stays as straight as it was.
/// </summary>
public sealed record CopyLook(Guid FromPieceId, IReadOnlyList<Guid> ToPieceIds) : ContentEdit
{
    public override string Label() => "Copy the look of a print";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var from =
            desk.Content.Find(FromPieceId) as PhotoPrint
            ?? throw new RuleException("The look is copied from a photo print. Nothing was changed.");
        var ids = (ToPieceIds ?? []).Where(id => id != from.Id).Distinct().ToList();
        if (ids.Count == 0)
        {
            throw new RuleException("Choose the prints that are to look the same. Nothing was changed.");
        }

        var content = desk.Content;
        foreach (var id in ids)
        {
            if (content.Find(id) is not PhotoPrint to)
            {
                throw new RuleException("A look is copied to photo prints. Nothing was changed.");
            }

            if (from.Finish is { } finish)
            {
                _ = finish.On(desk.Pages.CutSizeOf(content, to));
            }

            content = content
                .GiveFinish(id, from.Finish)
                .Adjust(
                    id,
                    (from.Adjustment ?? PictureAdjustment.None) with
                    {
                        Straighten = to.Adjustment?.Straighten ?? 0,
                    }
                );
        }

        return new Edited(content, $"Copied the look to {NumberWords.Counted(ids.Count, "print")}", from.Id);
    }
}
