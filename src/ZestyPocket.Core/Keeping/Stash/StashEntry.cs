using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>An item as its keeper writes it down.</summary>
/// <param name="Count">How many lie in the stash, 0 to <see cref="Most"/>.</param>
/// <param name="Size">Such as <c>4x6</c> or <c>30 x 30 cm</c>; empty when nobody measured it.</param>
/// <param name="Colours">Such as <c>teal, #f4e9d8</c>; empty when nobody said.</param>
/// <param name="Letters">What is on a sheet of letters, such as <c>A12 B4 '2</c>; empty for anything else.</param>
public sealed record StashEntry(
    StashKind Kind,
    string Name,
    int Count = 1,
    string Theme = "",
    string Kit = "",
    string Place = "",
    string Size = "",
    string Colours = "",
    Money? Price = null,
    string Letters = ""
)
{
    /// <summary>More of one thing is a shop, not a stash.</summary>
    public const int Most = 10_000;

    private const int LongestText = 80;

    /// <summary>Colours as they were measured in its photo; they count when none are written.</summary>
    public ImmutableArray<PaletteColour> Measured { get; init; } = [];

    public StashPicture? Picture { get; init; }

    /// <summary>The item as written. Throws <see cref="RuleException"/> for what makes no sense.</summary>
    /// <param name="before">What it was; null for a new one.</param>
    public StashItem Item(Guid id, StashItem? before = null)
    {
        if (!Enum.IsDefined(Kind))
        {
            throw new RuleException("There is no such kind of item. Nothing was changed.");
        }

        var name = Name?.Trim() ?? "";
        if (name.Length is 0 or > LongestText)
        {
            throw new RuleException($"An item has a name of 1 to {LongestText} characters. Nothing was changed.");
        }

        if (Count is < 0 or > Most)
        {
            throw new RuleException($"There are 0 to {Most:N0} of one item. Nothing was changed.");
        }

        var item = (before ?? new StashItem(id, Kind, name, Count)) with
        {
            Kind = Kind,
            Name = name,
            Count = Count,
            Theme = Short(Theme, "A theme"),
            Kit = Short(Kit, "The name of a kit"),
            Place = Short(Place, "A place"),
            Size = string.IsNullOrWhiteSpace(Size) ? null : Possible(MeasureText.ParseSize(Size)),
            Colours = ColoursAsWritten(before?.Colours ?? Measured),
            Price = Price?.Checked(),
            Picture = Picture is null ? before?.Picture : Picture with { Corners = Picture.Corners.Checked() },
            Letters =
                Kind == StashKind.Letters && !string.IsNullOrWhiteSpace(Letters)
                    ? AlphaSheet.Read(Letters, reusable: before?.Letters?.Reusable ?? false)
                    : null,
        };
        return item.Free >= 0
            ? item
            : throw new RuleException(
                $"{NumberWords.Counted(item.Reserved, "piece")} of “{name}” are reserved: give some back first, or "
                    + "count again. Nothing was changed."
            );
    }

    /// <summary>An item as it would be written down.</summary>
    public static StashEntry Of(StashItem item, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(item);
        return new StashEntry(
            item.Kind,
            item.Name,
            item.Count,
            item.Theme,
            item.Kit,
            item.Place,
            item.Size is { } size ? MeasureText.Exact(size, measures) : "",
            string.Join(", ", item.Colours.Select(c => c.Hex)),
            item.Price,
            item.Letters?.ToString() ?? ""
        );
    }

    private ImmutableArray<PaletteColour> ColoursAsWritten(ImmutableArray<PaletteColour> known)
    {
        if (string.IsNullOrWhiteSpace(Colours))
        {
            return Measured.IsDefault ? [] : [.. Measured.Take(PictureJudging.PaletteSize)];
        }

        var written = ColourWords.Read(Colours);
        // Colours that were measured keep their shares while they are written as they were.
        return !known.IsDefault && written.Select(c => c.Hex).SequenceEqual(known.Select(c => c.Hex)) ? known : written;
    }

    private static Size Possible(Size size) =>
        size.Width >= Length.FromInches(1, 8) && size.Height >= Length.FromInches(1, 8)
            ? size
            : throw new RuleException("An item is at least 1/8 in wide and high. Nothing was changed.");

    private static string Short(string? text, string what) =>
        (text?.Trim() ?? "") is { Length: <= LongestText } trimmed
            ? trimmed
            : throw new RuleException($"{what} has at most {LongestText} characters. Nothing was changed.");
}
