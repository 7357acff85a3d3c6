using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>A mat as written: a length such as <c>1/8 in</c>, a colour, a filler style or null.</summary>
public sealed record WrittenMat(string Reveal, string Colour, string? StyleKey = null);

/// <summary>
/// A finish as written: lengths with their unit, colours as <c>#rrggbb</c>. A border of one length is even; otherwise
/// its sides are left, top, right, bottom.
/// </summary>
public sealed record WrittenFinish(
    CutShape Shape = CutShape.Rectangle,
    string? Corner = null,
    IReadOnlyList<string>? Border = null,
    string? BorderColour = null,
    IReadOnlyList<WrittenMat>? Mats = null,
    PieceEdge? StripEdge = null,
    string? StripWidth = null,
    string? StripStyleKey = null
)
{
    public static WrittenFinish? Of(Finish? finish, MeasureSystem measures)
    {
        if (finish is null)
        {
            return null;
        }

        return new WrittenFinish(
            finish.Shape,
            finish.Corner > Length.Zero ? Show(finish.Corner) : null,
            finish.Border switch
            {
                null => null,
                { IsEven: true } even => [Show(even.Left)],
                var b => [Show(b.Left), Show(b.Top), Show(b.Right), Show(b.Bottom)],
            },
            finish.Border?.Colour.ToString(),
            [.. finish.Mats.Select(m => new WrittenMat(Show(m.Reveal), m.Colour.ToString(), m.StyleKey))],
            finish.Strip?.Edge,
            finish.Strip is { } strip ? Show(strip.Width) : null,
            finish.Strip?.StyleKey
        );

        string Show(Length length) => MeasureText.Show(length, measures);
    }

    /// <summary>Throws <see cref="RuleException"/> when something cannot be read.</summary>
    public Finish ToFinish() =>
        new()
        {
            Shape = Shape,
            Corner = MeasureText.ParseLengthOrNone(Corner),
            Border = Border switch
            {
                null or [] => null,
                [var even] => PrintBorder.Even(MeasureText.ParseLengthOrNone(even), Colour(BorderColour)),
                [var l, var t, var r, var b] => new PrintBorder(
                    MeasureText.ParseLengthOrNone(l),
                    MeasureText.ParseLengthOrNone(t),
                    MeasureText.ParseLengthOrNone(r),
                    MeasureText.ParseLengthOrNone(b),
                    Colour(BorderColour)
                ),
                _ => throw new RuleException("A border has one width or four. Nothing was changed."),
            },
            Mats =
            [
                .. (Mats ?? [])
                    .OfType<WrittenMat>()
                    .Select(m => new Mat(MeasureText.ParseLengthOrNone(m.Reveal), Rgb.Read(m.Colour), m.StyleKey)),
            ],
            Strip =
                StripEdge is { } edge && StripStyleKey is { } style
                    ? new EdgeStrip(edge, MeasureText.ParseLengthOrNone(StripWidth), style)
                    : null,
        };

    private static Rgb Colour(string? text) => text is null ? new Rgb(255, 255, 255) : Rgb.Read(text);
}

/// <summary>Finishes prints and cards alike: shape, border, corners, mats, strip. Null takes the finish off.</summary>
public sealed record FinishPieces(IReadOnlyList<Guid> PieceIds, WrittenFinish? Finish = null) : ContentEdit
{
    public override string Label() => "Change the finish of a piece";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var patterns = desk.Words.Styles.Where(s => s.Role == StyleRole.Filler).Select(s => s.Key).ToHashSet();
        var finish = Finish?.ToFinish().Checked(patterns.Contains);
        finish = finish is { IsNone: true } ? null : finish;
        var ids = PieceIds.Distinct().ToList();
        if (ids.Count == 0)
        {
            throw new RuleException("Choose at least one print or card. Nothing was changed.");
        }

        var content = desk.Content;
        foreach (var id in ids)
        {
            // Refused before anything is kept: on every one of these the picture must have room.
            if (finish is not null && content.Find(id) is { } piece)
            {
                _ = finish.On(desk.Pages.CutSizeOf(content, piece));
            }

            content = content.GiveFinish(id, finish);
        }

        var what = ids.Count == 1 ? $"a piece{desk.Where(ids[0])}" : $"{ids.Count} pieces";
        return new Edited(
            content,
            finish is null ? $"Removed the finish of {what}" : $"Changed the finish of {what}",
            ids[0]
        );
    }
}
