using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Cards of a unit look as if they belong together: one size of type, one tint.</summary>
public sealed class TypeLevelTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);

    private const string Story =
        "The rain stopped at ten and we took the long way round by the weir. Junie counted four herons and one "
        + "cardboard box that looked like a heron. We had soup in the lock cottage and nobody spilt it.";

    private static Guid Id(int n) => new($"00000000-0000-7000-8000-{n:000000000000}");

    private static UnitDesk Week()
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!);
        var dates = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday }.FirstUnits(4)[0];
        var photos = new[]
        {
            (Id(1), new PaletteColour(40, 90, 160, 0.8), new PaletteColour(210, 60, 40, 0.2)),
            (Id(2), new PaletteColour(120, 120, 120, 0.9), new PaletteColour(90, 90, 90, 0.1)),
        };
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(dates, [new UnitFace(Id(90), LeafSide.Front, protector, LeafAlterations.Plain)]),
            dates,
            "Week 19",
            photos.ToDictionary(
                p => p.Item1,
                p => new DeskPhoto(
                    new LoosePhoto(p.Item1, new PixelSize(3000, 2000), Monday, Monday.AtMidnight()),
                    "a.jpg",
                    Framing.Middle
                )
                {
                    Palette = [p.Item2, p.Item3],
                }
            ),
            AlbumWords.Usual with
            {
                Family = "Almanac",
            },
            protector.Design.Pockets.Select(p => p.Nominal).ToHashSet(),
            MeasureSystem.Inches
        );
    }

    private static UnitDesk With(UnitDesk desk, params string[] words)
    {
        var next = 100;
        var tools = new EditTools(() => Id(next++), EvenShaper.Only);
        for (var i = 0; i < words.Length; i++)
        {
            var edit = new AddCard(CardKind.Journaling, words[i], Place: desk.Pages.Pockets[i].Place) { Revision = 1 };
            desk = desk with { Content = edit.Apply(desk, tools).Content };
        }

        return desk;
    }

    private static double SizeOf(UnitDesk desk, Card card, double? level)
    {
        var style = level is { } shared ? TypeLevels.At(shared, desk.StyleOf(card)) : desk.StyleOf(card);
        return CardComposer.Fit(card.Words, style, desk.Pages.CutSizeOf(desk.Content, card), EvenShaper.Only).SizePt;
    }

    [Fact]
    public void Journaling_cards_of_a_unit_are_set_in_one_size()
    {
        var desk = With(Week(), Story, Story[..150], Story + Story[..60]);
        var levels = TypeLevels.Of(desk, EvenShaper.Only);
        var cards = desk.Content.Pieces.OfType<Card>().ToList();
        cards.Select(c => SizeOf(desk, c, null)).Distinct().Count().ShouldBe(3);
        var sizes = cards.ConvertAll(c => SizeOf(desk, c, levels[c.Id]));
        sizes.ShouldAllBe(s => s == cards.Min(c => SizeOf(desk, c, null)));
    }

    [Fact]
    public void Display_type_is_levelled_too_and_not_made_smaller_for_the_shape_of_its_lines()
    {
        var desk = With(
            Week(),
            "The second batch knows what it is doing.",
            "Nobody minded the rain at all, said Junie."
        );
        var levels = TypeLevels.Of(desk, EvenShaper.Only);
        var cards = desk.Content.Pieces.OfType<Card>().ToList();
        cards.ConvertAll(c => SizeOf(desk, c, levels[c.Id])).Distinct().Count().ShouldBe(1);
        levels.Values.First().ShouldBeGreaterThan(PlannedCard.DisplayPt);
    }

    [Fact]
    public void A_card_crammed_with_words_does_not_make_all_others_small()
    {
        var desk = With(Week(), Story, Story[..170], string.Concat(Enumerable.Repeat(Story + " ", 5)));
        var cards = desk.Content.Pieces.OfType<Card>().ToList();
        var levels = TypeLevels.Of(desk, EvenShaper.Only);
        levels.Keys.ShouldBe([cards[0].Id, cards[1].Id], ignoreOrder: true);
        SizeOf(desk, cards[2], null).ShouldBeLessThan(levels[cards[0].Id] * TypeLevels.LeastShare);
    }

    [Fact]
    public void A_card_that_is_to_have_its_own_size_and_one_in_the_tray_are_not_counted()
    {
        var desk = With(Week(), Story, Story[..150]);
        var first = desk.Content.Pieces.OfType<Card>().First();
        var own = desk with
        {
            Content = new WriteCard(first.Id, Setting: new CardSetting(OwnSize: true)) { Revision = 1 }
                .Apply(desk, new EditTools(() => Id(1), EvenShaper.Only))
                .Content,
        };
        TypeLevels.Of(own, EvenShaper.Only).ShouldBeEmpty();
        var loose = desk with { Content = desk.Content.TakeOut(desk.Pages.Pockets[0].Place) };
        TypeLevels.Of(loose, EvenShaper.Only).ShouldBeEmpty();
        TypeLevels.Of(Week(), EvenShaper.Only).ShouldBeEmpty();
    }

    [Fact]
    public void Cards_take_their_colours_from_the_pictures_and_give_them_back()
    {
        var tools = new EditTools(() => Id(1), EvenShaper.Only);
        var desk = With(Week(), Story);
        var card = desk.Content.Pieces.OfType<Card>().Single();
        var own = desk.StyleOf(card);
        var tint = new TintCards(true, Id(1)) { Revision = 1 }.Apply(desk, tools);
        var tinted = desk with { Content = tint.Content };
        tinted.Content.Tint.ShouldBe(new CardTint(new Rgb(40, 90, 160), new Rgb(210, 60, 40)) { PhotoId = Id(1) });
        tinted.StyleOf(card).Paper.ShouldNotBe(own.Paper);
        var back = new TintCards(false) { Revision = 1 }.Apply(tinted, tools);
        (tinted with { Content = back.Content }).StyleOf(card).ShouldBe(own);
        Should
            .Throw<RuleException>(() => new TintCards(true, Id(2)) { Revision = 1 }.Apply(desk, tools))
            .Message.ShouldContain("grey");
        Should.Throw<RuleException>(() => new TintCards(true, Id(7)) { Revision = 1 }.Apply(desk, tools));
        var empty = desk with { Photos = new Dictionary<Guid, DeskPhoto>() };
        Should
            .Throw<RuleException>(() => new TintCards(true) { Revision = 1 }.Apply(empty, tools))
            .Message.ShouldContain("no picture with colours");
    }
}
