using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// A card or sheet that was bought, by way of a photo of it: squared up by its four corners, trimmed to its pocket by
/// the part that is kept, with words on its free place and a picture mounted on a measured one. The card itself is not
/// printed; its words are.
/// </summary>
/// <param name="Name">What it is called, such as its pack: cards of one name are counted together.</param>
/// <param name="PhotoId">The photo of it.</param>
/// <param name="Corners">Where it lies in the photo.</param>
/// <param name="Width">As measured.</param>
/// <param name="Height">As measured.</param>
/// <param name="KeepX">Where the kept part begins, from its left edge.</param>
/// <param name="KeepY">Where the kept part begins, from its top edge.</param>
/// <param name="Words">Typed on its free place; may be empty.</param>
public sealed record BoughtCard(
    Guid Id,
    string Name,
    Guid PhotoId,
    CardCorners Corners,
    Length Width,
    Length Height,
    Length KeepX,
    Length KeepY,
    string Words
) : Piece(Id)
{
    /// <summary>Where the words go, on the kept part; null when there is no place for words.</summary>
    public Rect? WordsPlace { get; init; }

    /// <summary>Where a picture is mounted, on the kept part; null for none.</summary>
    public Rect? PicturePlace { get; init; }

    /// <summary>The picture that is mounted; null for none.</summary>
    public CardPicture? Picture { get; init; }

    public Size Size => new(Width, Height);

    /// <summary>The part that is kept for a pocket's cut size: as much of that as the card has.</summary>
    public Rect KeptFor(Size cut)
    {
        var size = new Size(Length.Min(cut.Width, Width), Length.Min(cut.Height, Height));
        return new Rect(Within(KeepX, Width - size.Width), Within(KeepY, Height - size.Height), size);

        static Length Within(Length at, Length most) => Length.Max(Length.Zero, Length.Min(at, most));
    }

    /// <summary>
    /// What is cut off around the kept part and can be used elsewhere: the strips of at least half an inch, cut edge to
    /// edge, those at the sides over the whole height. Common practice, arithmetic.
    /// </summary>
    public ImmutableArray<Size> OffcutsFor(Size cut)
    {
        var kept = KeptFor(cut);
        var least = Length.FromInches(1, 2);
        return
        [
            .. new[]
            {
                new Size(kept.X, Height),
                new Size(Width - kept.Right, Height),
                new Size(kept.Width, kept.Y),
                new Size(kept.Width, Height - kept.Bottom),
            }.Where(s => s.Width >= least && s.Height >= least),
        ];
    }

    /// <summary>Throws <see cref="RuleException"/> when something makes no sense.</summary>
    public BoughtCard Checked()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 80)
        {
            throw new RuleException("A bought card needs a name of at most 80 characters. Nothing was changed.");
        }

        var (least, most) = (Length.FromInches(1), Length.FromInches(24));
        if (Width < least || Height < least || Width > most || Height > most)
        {
            throw new RuleException(
                "A bought card is 1 to 24 in wide and high. Nothing was changed: measure it again."
            );
        }

        if (Words.Length > UnitContent.LongestWords)
        {
            throw new RuleException("These words are longer than a card can take. Nothing was changed.");
        }

        var smallest = Length.FromInches(1, 4);
        if (
            new[] { WordsPlace, PicturePlace }
                .OfType<Rect>()
                .Any(r => r.X < Length.Zero || r.Y < Length.Zero || r.Width < smallest || r.Height < smallest)
        )
        {
            throw new RuleException("A place on a card is at least 1/4 in each way. Nothing was changed.");
        }

        _ = Corners.Checked();
        return this;
    }
}

/// <summary>Bought cards of one name that are used in an album.</summary>
/// <param name="Used">How many.</param>
/// <param name="Offcuts">What was cut off them.</param>
public sealed record UsedCards(string Name, Size Size, int Used, ImmutableArray<Size> Offcuts)
{
    /// <summary>The cards of units, by name and size.</summary>
    public static IReadOnlyList<UsedCards> Of(IEnumerable<(UnitContent Content, UnitPages Pages)> units) =>
        [
            .. units
                .SelectMany(u =>
                    u.Content.Pieces.OfType<BoughtCard>().Select(c => (Card: c, Cut: u.Pages.CutSizeOf(u.Content, c)))
                )
                .GroupBy(c => (c.Card.Name, c.Card.Size))
                .Select(g => new UsedCards(
                    g.Key.Name,
                    g.Key.Size,
                    g.Count(),
                    [.. g.SelectMany(c => c.Card.OffcutsFor(c.Cut)).OrderByDescending(s => s.SquareInches)]
                ))
                .OrderBy(u => u.Name, StringComparer.Ordinal),
        ];
}
