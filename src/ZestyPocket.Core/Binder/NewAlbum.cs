using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder;

/// <summary>An album that is about to be made.</summary>
/// <param name="Units">Weeks or days to begin with; a documented day has its waking hours instead.</param>
/// <param name="FacesPerUnit">2: facing pages, 1: one page.</param>
/// <param name="Protectors">Of page designs that it uses, all of one page body; its pages are of the first.</param>
public sealed record NewAlbum(
    string Name,
    AlbumCalendar Calendar,
    int Units,
    int FacesPerUnit,
    IReadOnlyList<Protector> Protectors,
    MeasureSystem Measures,
    PageSchool School = PageSchool.Spread
)
{
    /// <summary>Words of an album whose cards, hand and way to tell it takes over; null for the usual ones.</summary>
    public AlbumWords? CardsOf { get; init; }

    private AlbumWords Words() =>
        CardsOf is { } other
            ? AlbumWords.Usual with
            {
                Family = other.Family,
                OwnStyles = other.OwnStyles,
                Hand = other.Hand,
                School = other.School,
            }
            : AlbumWords.Usual with
            {
                Family = BuiltInCardStyles.NewAlbumFamily,
            };

    /// <summary>The album with its empty units on their leaves. Throws <see cref="RuleException"/>.</summary>
    public AlbumDesk Made(Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(newId);
        Check();
        var calendar = Calendar.Checked();
        var binder = new RingBinder(
            School,
            FacesPerUnit,
            Protectors[0].Design.Body,
            [.. calendar.FirstUnits(Units).Select(dates => new BoundUnit(newId(), dates, UnitContent.Empty))],
            [],
            [.. Protectors.Select(p => new OwnedProtector(newId(), p))]
        );
        // The others are made like the first one.
        binder = binder with
        {
            Leaves = [new BoundLeaf(newId(), binder.Protectors[0].Id, LeafAlterations.Plain)],
        };
        return new AlbumDesk(
            PlainWords.Name(Name),
            calendar,
            Words(),
            new AlbumFormulas(),
            Measures,
            binder.Lay(binder.Faces(), _ => FacesPerUnit, newId)
        );
    }

    private void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > RenameAlbum.Longest)
        {
            throw new RuleException(
                $"An album needs a name of at most {RenameAlbum.Longest} characters. Nothing was made."
            );
        }

        if (Protectors.Count == 0)
        {
            throw new RuleException("Choose at least one page design that the album uses. Nothing was made.");
        }

        if (Protectors.Select(p => p.Design.Body).Distinct().Count() > 1)
        {
            throw new RuleException(
                "The chosen page designs are of different page bodies; one album holds one size of page. Nothing "
                    + "was made."
            );
        }

        if (FacesPerUnit is not (1 or 2))
        {
            throw new RuleException("A unit takes facing pages or one page. Nothing was made.");
        }

        if (School == PageSchool.Leaf && FacesPerUnit != 2)
        {
            throw new RuleException(
                "The two faces of one leaf are two pages; one page each is another way. Nothing was made."
            );
        }

        if (Calendar.Kind != AlbumKind.DocumentedDay && Units is < 1 or > RingBinder.MostUnits)
        {
            throw new RuleException($"An album can have 1 to {RingBinder.MostUnits} weeks or days. Nothing was made.");
        }
    }
}
