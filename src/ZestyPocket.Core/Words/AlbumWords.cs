using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Words;

/// <summary>Whether an album tells its stories day by day or theme by theme. Common practice knows both.</summary>
public enum StorySchool
{
    ByDay,
    ByTheme,
}

/// <summary>A title that was spelt from a sheet of letters, on a day.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Title">As it was spelt, stand-ins included.</param>
/// <param name="Day">When.</param>
public sealed record SpeltTitle(Guid Id, string Title, LocalDate Day);

/// <summary>A sheet of letters a keeper owns, and what was spelt from it in this album.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Sheet">As it was when new.</param>
/// <param name="Spelt">Titles it was used for, in their order.</param>
public sealed record OwnedSheet(Guid Id, string Name, AlphaSheet Sheet, ImmutableArray<SpeltTitle> Spelt)
{
    /// <summary>What is left of it.</summary>
    public AlphaSheet Left() => Spelt.Aggregate(Sheet, (left, title) => left.After(title.Title));
}

/// <summary>
/// What an album knows about its words: who it is about, which words are right, how its cards look, whose hand writes,
/// and which sheets of letters there are. Immutable.
/// </summary>
public sealed record AlbumWords
{
    public const int MostStyles = 60;

    public const int MostSheets = 60;

    public static AlbumWords Usual { get; } = new();

    /// <summary>Who the album is about.</summary>
    public ImmutableArray<AlbumPerson> People { get; init; } = [];

    /// <summary>Words that are right in this album whatever a dictionary says.</summary>
    public ImmutableArray<string> KnownWords { get; init; } = [];

    /// <summary>Findings the keeper wants to hear of no more, each as its kind and the words it was about.</summary>
    public ImmutableArray<string> PassedOver { get; init; } = [];

    public StorySchool School { get; init; }

    /// <summary>New cards are of this family of styles.</summary>
    public string Family { get; init; } = BuiltInCardStyles.All[0].Family;

    /// <summary>Styles the keeper made.</summary>
    public ImmutableArray<CardStyle> OwnStyles { get; init; } = [];

    /// <summary>How much the keeper's own hand gets on a line.</summary>
    public HandCapacity Hand { get; init; } = HandCapacity.Usual;

    public ImmutableArray<OwnedSheet> Sheets { get; init; } = [];

    /// <summary>Compositions the keeper keeps to begin others with.</summary>
    public ImmutableArray<KeptComposition> OwnCompositions { get; init; } = [];

    /// <summary>The windows of its binder for a spine and a cover.</summary>
    public BinderInserts Inserts { get; init; } = BinderInserts.None;

    /// <summary>Findings of looking over that the keeper is content with: their keys, or whole rules.</summary>
    public ImmutableArray<string> Accepted { get; init; } = [];

    /// <summary>Whether the keeper is content with a finding, or with its whole rule.</summary>
    public bool Accepts(string findingKey)
    {
        ArgumentNullException.ThrowIfNull(findingKey);
        return Accepted.Contains(findingKey) || Accepted.Contains(findingKey.Split(' ')[0]);
    }

    /// <summary>
    /// How colourful a spread may be before looking over speaks of it, see
    /// <see cref="Photos.PictureJudging.Colourfulness(ReadOnlySpan{byte})"/>; null for no limit.
    /// </summary>
    public double? MostColourful { get; init; } = UsualMostColourful;

    /// <summary>“Quite colourful” in the words of the scale.</summary>
    public const double UsualMostColourful = 59;

    /// <summary>What counts how much when pockets are filled.</summary>
    public PlacingWeights Weights { get; init; } = PlacingWeights.Usual;

    /// <summary>What its pictures are printed on.</summary>
    public Stock PicturesOn { get; init; } = Stock.PhotoPaper;

    /// <summary>What its cards are printed on, where their style says nothing else.</summary>
    public Stock CardsOn { get; init; } = Stock.WhiteCard;

    /// <summary>What a piece is printed on: what it says itself, else its style, else the album.</summary>
    public Stock StockOf(Piece piece)
    {
        ArgumentNullException.ThrowIfNull(piece);
        return piece.PrintedOn
            ?? piece switch
            {
                PhotoPrint or Collage or Composition => PicturesOn,
                WordStrips => Stock.Label,
                // What lies under it shows through. Common practice.
                Card { Kind: CardKind.Divider } => Stock.ClearFilm,
                Card card => Style(card.StyleKey, card.Kind).PrintedOn ?? CardsOn,
                _ => CardsOn,
            };
    }

    /// <summary>Every style there is: those that ship, then the keeper's own.</summary>
    public IEnumerable<CardStyle> Styles => BuiltInCardStyles.All.Concat(OwnStyles);

    /// <summary>
    /// Finds a style; one of the same family or else of the album's when the key is unknown or does not suit the kind,
    /// so that a card is never lost.
    /// </summary>
    public CardStyle Style(string key, CardKind kind)
    {
        var named = Styles.FirstOrDefault(s => s.Key == key);
        return named is not null && named.Suits(kind) ? named : InFamily(named?.Family ?? Family, kind);
    }

    /// <summary>What a new card of a kind looks like in this album.</summary>
    public CardStyle NewStyle(CardKind kind) =>
        FirstSuiting(Family, kind)
        ?? FirstSuiting(BuiltInCardStyles.NewAlbumFamily, kind)
        ?? Styles.First(s => s.Suits(kind));

    /// <summary>
    /// Whether a style is offered for something new. The first styles set a few words in a corner and leave the card
    /// empty; only an album that keeps to one of their families is still offered them.
    /// </summary>
    public bool Offers(CardStyle style)
    {
        ArgumentNullException.ThrowIfNull(style);
        return !BuiltInCardStyles.IsFirst(style.Family) || BuiltInCardStyles.IsFirst(Family);
    }

    public OwnedSheet RequireSheet(Guid sheetId) =>
        Sheets.FirstOrDefault(s => s.Id == sheetId)
        ?? throw new RuleException("That sheet of letters is not in the album any more. Nothing was changed.");

    /// <summary>Throws <see cref="RuleException"/> when something makes no sense.</summary>
    public AlbumWords Checked()
    {
        if (People.Length > AlbumPerson.Most)
        {
            throw new RuleException($"An album can have {AlbumPerson.Most} people at most. Nothing was changed.");
        }

        if (KnownWords.Length > 5_000 || KnownWords.Any(w => w.Length is 0 or > 80))
        {
            throw new RuleException(
                "An album can know 5,000 words of its own at most, each of at most 80 letters. Nothing was changed."
            );
        }

        if (Accepted.Length > 5_000 || Accepted.Any(a => a.Length is 0 or > 600))
        {
            throw new RuleException("At most 5,000 findings are accepted. Nothing was changed.");
        }

        if (PassedOver.Length > 5_000 || PassedOver.Any(p => p.Length is 0 or > 200))
        {
            throw new RuleException("An album can pass over 5,000 findings at most. Nothing was changed.");
        }

        if (OwnStyles.Length > MostStyles || Sheets.Length > MostSheets)
        {
            throw new RuleException(
                $"An album can have {MostStyles} card styles of its own and {MostSheets} sheets of letters at most. "
                    + "Nothing was changed."
            );
        }

        if (
            OwnStyles.Any(s => BuiltInCardStyles.All.Any(b => b.Key == s.Key))
            || OwnStyles.Select(s => s.Key).Distinct().Count() != OwnStyles.Length
        )
        {
            throw new RuleException("Two card styles cannot have one key. Nothing was changed.");
        }

        if (MostColourful is { } most && !(most is >= 0 and <= 200))
        {
            throw new RuleException("How colourful a spread may be is 0 to 200. Nothing was changed.");
        }

        if (OwnCompositions.Length > KeptComposition.Most)
        {
            throw new RuleException(
                $"An album keeps {KeptComposition.Most} compositions at most. Nothing was changed: delete one first."
            );
        }

        if (Styles.All(s => s.Family != Family))
        {
            throw new RuleException($"There is no family of card styles “{Family}”. Nothing was changed.");
        }

        foreach (var sheet in Sheets)
        {
            if (string.IsNullOrWhiteSpace(sheet.Name) || sheet.Name.Length > 80)
            {
                throw new RuleException(
                    "A sheet of letters needs a name of at most 80 characters. Nothing was changed."
                );
            }

            _ = sheet.Left();
        }

        return this with
        {
            People = [.. People.Select(p => p.Checked())],
            OwnStyles = [.. OwnStyles.Select(s => s.Checked())],
            Hand = Hand.Checked(),
        };
    }

    private CardStyle InFamily(string family, CardKind kind) =>
        FirstSuiting(family, kind) ?? Styles.First(s => s.Suits(kind));

    private CardStyle? FirstSuiting(string family, CardKind kind) =>
        Styles.FirstOrDefault(s => s.Family == family && s.Suits(kind));
}
