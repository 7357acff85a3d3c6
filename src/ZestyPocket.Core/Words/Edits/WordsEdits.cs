using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Words.Edits;

/// <summary>
/// A change of what an album knows about its words. Stories on cards of a changed style, or written by a hand measured
/// again, are fitted again afterwards.
/// </summary>
public abstract record WordsEdit : WholeAlbumEdit
{
    public sealed override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var (words, done) = Change(desk.Words, tools);
        return new AlbumEdited(desk with { Words = words.Checked() }, done);
    }

    /// <summary>What the album knows after the edit, and what was done.</summary>
    protected abstract (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools);
}

/// <summary>Somebody the album is about; the birthday is null when it is nobody's business.</summary>
public sealed record PersonText(string Name, LocalDate? Born);

/// <summary>Says who the album is about.</summary>
public sealed record SetPeople(ImmutableArray<PersonText> People) : WordsEdit
{
    public override string Label() => "Set the people";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                People = [.. People.Select(p => new AlbumPerson(p.Name, p.Born))],
            },
            People.Length == 1 ? "Named one person" : $"Named {People.Length} people"
        );
}

/// <summary>Says which words are right whatever a dictionary says.</summary>
public sealed record SetKnownWords(ImmutableArray<string> KnownWords) : WordsEdit
{
    public override string Label() => "Set the known words";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                KnownWords = [.. KnownWords.Select(w => w.Trim()).Distinct()],
            },
            KnownWords.Length == 1 ? "Learned a word" : $"Knows {KnownWords.Length} words of its own"
        );
}

/// <summary>Says which findings the keeper wants to hear of no more, each as its kind and its words.</summary>
public sealed record PassOver(ImmutableArray<string> PassedOver) : WordsEdit
{
    public override string Label() => "Pass over a finding";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { PassedOver = [.. PassedOver.Distinct()] }, "Passes over a finding from now on");
}

/// <summary>Says whether stories are told day by day or theme by theme.</summary>
public sealed record TellStories(StorySchool School) : WordsEdit
{
    public override string Label() => "Change how stories are told";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                School = School,
            },
            School switch
            {
                StorySchool.ByTheme => "Tells its stories by theme",
                StorySchool.ByDay => "Tells its stories by day",
                _ => throw new RuleException("There is no such way to tell stories. Nothing was changed."),
            }
        );
}

/// <summary>Chooses the family of card styles that new cards are of.</summary>
public sealed record ChooseFamily(string Family) : WordsEdit
{
    public override string Label() => "Choose card styles";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { Family = Family }, $"New cards are of the family {Family}");
}

/// <summary>Says what the album's pictures and cards are printed on where nothing else is said.</summary>
public sealed record ChoosePapers(Stock PicturesOn, Stock CardsOn) : WordsEdit
{
    public override string Label() => "Choose papers";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                PicturesOn = PicturesOn,
                CardsOn = CardsOn,
            },
            $"Pictures are printed on {Stocks.Name(PicturesOn)}, cards on {Stocks.Name(CardsOn)}"
        );
}

/// <summary>Is content with a finding of looking over, this once or with its whole rule in this album.</summary>
/// <param name="Key">Of the finding.</param>
/// <param name="Always">Nothing of its rule is shown any more.</param>
public sealed record AcceptFinding(string Key, bool Always) : WordsEdit
{
    public override string Label() => "Accept a finding";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var key = (Key ?? string.Empty).Trim();
        // By its name: a number is a rule to the parser too.
        if (!Enum.GetNames<FindingRule>().Contains(key.Split(' ')[0]))
        {
            throw new RuleException("There is no such finding. Nothing was changed.");
        }

        var accepted = Always ? key.Split(' ')[0] : key;
        return (
            words with
            {
                Accepted = words.Accepted.Contains(accepted) ? words.Accepted : words.Accepted.Add(accepted),
            },
            Always ? "Accepts findings of this kind in this album" : "Accepted a finding"
        );
    }
}

/// <summary>Says how colourful a spread may be before looking over speaks of it; null for no limit.</summary>
public sealed record LimitColour(double? MostColourful) : WordsEdit
{
    public override string Label() => "Limit the colours of a spread";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                MostColourful = MostColourful,
            },
            MostColourful is null ? "Spreads may be as colourful as they are" : "Changed how colourful a spread may be"
        );
}

/// <summary>Shows every finding of looking over again.</summary>
public sealed record ShowAllFindings : WordsEdit
{
    public override string Label() => "Show all findings again";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { Accepted = [] }, "Shows all findings again");
}

/// <summary>Says what counts how much when the album's pockets are filled.</summary>
public sealed record WeighAlbum(PlacingWeights Weights) : WordsEdit
{
    public override string Label() => "Change the album’s priorities";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                Weights = (Weights ?? PlacingWeights.Usual).Checked(),
            },
            "Changed the album’s priorities of placing"
        );
}

/// <summary>Keeps a composition to begin others with; one of the same name is replaced.</summary>
/// <param name="Size">Of the piece it was made for, as written.</param>
public sealed record KeepComposition(string Name, string Size, WrittenComposition Composition) : WordsEdit
{
    public override string Label() => "Keep a composition";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var name = PlainWords.Name(Name);
        var made = (Composition with { Name = name, GroundPhotoId = null }).WithoutPictures(words);
        var old = words.OwnCompositions.FirstOrDefault(c => c.Composition.Name == name);
        var kept = KeptComposition.Of(
            old?.Key ?? KeptComposition.KeyStart + tools.NewId().ToString("N"),
            MeasureText.ParseSize(Size),
            made
        );
        return (
            words with
            {
                OwnCompositions = old is null
                    ? words.OwnCompositions.Add(kept)
                    : words.OwnCompositions.Replace(old, kept),
            },
            $"Kept the composition {name}"
        );
    }
}

/// <summary>Says how large the binder's windows for a spine and a cover are; empty for none.</summary>
/// <param name="Spine">As written, such as <c>1 1/2 x 11 in</c>.</param>
/// <param name="Cover">As written.</param>
public sealed record MeasureBinder(string? Spine, string? Cover) : WordsEdit
{
    public override string Label() => "Measure the binder";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { Inserts = BinderInserts.Of(Read(Spine), Read(Cover)) }, "Measured the binder's windows");

    private static Size? Read(string? text) => string.IsNullOrWhiteSpace(text) ? null : MeasureText.ParseSize(text);
}

/// <summary>Forgets a kept composition; pieces that were begun with it stay as they are.</summary>
public sealed record ForgetComposition(string Key) : WordsEdit
{
    public override string Label() => "Delete a kept composition";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var kept =
            words.OwnCompositions.FirstOrDefault(c => c.Key == Key)
            ?? throw new RuleException("That composition is not kept any more. Nothing was changed.");
        return (
            words with
            {
                OwnCompositions = words.OwnCompositions.Remove(kept),
            },
            $"Deleted the kept composition {kept.Composition.Name}"
        );
    }
}

/// <summary>Measures the keeper's hand on a sample: its words, on so many lines of a width, a pitch apart.</summary>
/// <param name="LineWidth">As written, such as <c>4 in</c>.</param>
/// <param name="Pitch">As written.</param>
public sealed record MeasureHand(string Text, int Lines, string LineWidth, string Pitch) : WordsEdit
{
    public override string Label() => "Measure your hand";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (
            words with
            {
                Hand = HandCapacity.Measured(
                    Copyfit.CountWords(Text),
                    Lines,
                    MeasureText.ParseLength(LineWidth),
                    MeasureText.ParseLength(Pitch)
                ),
            },
            "Measured your hand"
        );
}

/// <summary>Takes the usual hand instead of a measured one.</summary>
public sealed record TakeUsualHand : WordsEdit
{
    public override string Label() => "Take the usual hand";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { Hand = HandCapacity.Usual }, "Restored the usual handwriting size");
}

/// <summary>
/// Makes a style when the key is unknown or that of a style that ships, else changes the keeper's own.
/// </summary>
public sealed record WriteStyle(StyleText Style) : WordsEdit
{
    public override string Label() => "Change a card style";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        if (words.OwnStyles.FirstOrDefault(s => s.Key == Style.Key) is not { } old)
        {
            var made = Style.ToStyle($"own-{tools.NewId():N}");
            return (words with { OwnStyles = words.OwnStyles.Add(made) }, $"Made the card style {made.Name}");
        }

        var style = Style.ToStyle(old.Key);
        return old.Role == style.Role
            ? (words with { OwnStyles = words.OwnStyles.Replace(old, style) }, $"Changed the card style {style.Name}")
            : throw new RuleException(
                "What a style carries stays as it is, since cards have it already. Nothing was changed: make a new "
                    + "style."
            );
    }
}

/// <summary>Deletes a style of the keeper's own; its cards take another of its family.</summary>
public sealed record DeleteStyle(string Key) : WordsEdit
{
    public override string Label() => "Delete a card style";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var own =
            words.OwnStyles.FirstOrDefault(s => s.Key == Key)
            ?? throw new RuleException("Only a style of your own can be deleted. Nothing was changed.");
        var left = words with { OwnStyles = words.OwnStyles.Remove(own) };
        return (
            left.Styles.Any(s => s.Family == words.Family)
                ? left
                : left with
                {
                    Family = BuiltInCardStyles.NewAlbumFamily,
                },
            "Deleted a card style; its cards use another of its family"
        );
    }
}

/// <summary>Adds a sheet of letters as its keeper counts it: <c>A12 B4 '2</c>.</summary>
public sealed record AddSheet(string Name, string Letters, bool Reusable) : WordsEdit
{
    public override string Label() => "Add letters";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var name = PlainWords.Name(Name);
        return (
            words with
            {
                Sheets = words.Sheets.Add(new OwnedSheet(tools.NewId(), name, AlphaSheet.Read(Letters, Reusable), [])),
            },
            $"Added the letters {name}"
        );
    }
}

/// <summary>Counts a sheet of letters again; what was spelt from it stays.</summary>
public sealed record CountSheet(Guid SheetId, string Name, string Letters, bool Reusable) : WordsEdit
{
    public override string Label() => "Count letters";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var (old, name) = (words.RequireSheet(SheetId), PlainWords.Name(Name));
        var sheet = old with { Name = name, Sheet = AlphaSheet.Read(Letters, Reusable) };
        return (words with { Sheets = words.Sheets.Replace(old, sheet) }, $"Edited the letters {name}");
    }
}

/// <summary>Deletes a sheet of letters.</summary>
public sealed record DeleteSheet(Guid SheetId) : WordsEdit
{
    public override string Label() => "Delete letters";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools) =>
        (words with { Sheets = words.Sheets.Remove(words.RequireSheet(SheetId)) }, "Deleted a sheet of letters");
}

/// <summary>Spells a title from a sheet: its letters are used up.</summary>
public sealed record SpellTitle(Guid SheetId, string Title, LocalDate Day) : WordsEdit
{
    /// <summary>In characters.</summary>
    public const int Longest = 120;

    public override string Label() => "Spell a title";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        if (string.IsNullOrWhiteSpace(Title) || Title.Length > Longest)
        {
            throw new RuleException($"A title has 1 to {Longest} characters. Nothing was used.");
        }

        var (sheet, title) = (words.RequireSheet(SheetId), Title.Trim());
        _ = sheet.Left().After(Title);
        var spelt = sheet with { Spelt = sheet.Spelt.Add(new SpeltTitle(tools.NewId(), title, Day)) };
        return (words with { Sheets = words.Sheets.Replace(sheet, spelt) }, $"Spelt “{title}”");
    }
}

/// <summary>A title was not spelt after all: its letters are back on the sheet.</summary>
public sealed record UnspellTitle(Guid SheetId, Guid TitleId) : WordsEdit
{
    public override string Label() => "Put letters back";

    protected override (AlbumWords Words, string Done) Change(AlbumWords words, AlbumTools tools)
    {
        var sheet = words.RequireSheet(SheetId);
        var back = sheet with { Spelt = sheet.Spelt.RemoveAll(t => t.Id == TitleId) };
        return (words with { Sheets = words.Sheets.Replace(sheet, back) }, "Returned letters to their sheet");
    }
}
