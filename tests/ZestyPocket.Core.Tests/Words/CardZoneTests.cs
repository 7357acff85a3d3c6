using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Parts of a card that are kept free: bands, indents past the hour, pictures, borders.</summary>
public sealed class CardZoneTests
{
    private static readonly CardStyle Style = BuiltInCardStyles.Find("reading-serif", CardKind.Journaling) with
    {
        Columns = 1,
    };
    private static readonly Size Card = Size.FromInches(3, 4);
    private static readonly string Story = string.Join(' ', Enumerable.Repeat("kettle", 60));

    private static readonly Gen<CardZones> Zones = Gen.Select(
        Gen.Enum<BandPlace>(),
        Gen.Int[0, 20],
        Gen.Int[0, 25],
        Gen.Enum<PicturePlace>(),
        Gen.Double[0.2, 0.7],
        (band, high, indent, picture, share) =>
            new CardZones(band, Length.FromMillimetres(high), true, Length.FromMillimetres(indent), picture, share)
    );

    [Fact]
    public void No_line_runs_over_a_picture_a_band_or_the_border()
    {
        Gen.Select(Zones, Gen.Double[0, 12])
            .Sample(
                (zones, border) =>
                {
                    var style = Style with { Zones = zones, BorderPt = border };
                    var face = CardComposer.Journaling(Story, style, Card, EvenShaper.Only, null, "7 a.m.");
                    foreach (var line in face.Fit!.Lines)
                    {
                        var (top, bottom) = (line.Baseline - (0.7 * face.Fit.SizePt), line.Baseline);
                        line.X.ShouldBeGreaterThan(border);
                        (line.X + line.Width).ShouldBeLessThan(face.Width - border);
                        if (face.Opening is { } picture)
                        {
                            (
                                bottom <= picture.Y
                                || top >= picture.Y + picture.Height
                                || line.X + line.Width <= picture.X
                                || line.X >= picture.X + picture.Width
                            ).ShouldBeTrue();
                        }
                    }
                }
            );
    }

    [Fact]
    public void A_hanging_indent_holds_the_hour_and_every_line_begins_past_it()
    {
        var style = Style with { Zones = new CardZones(Indent: Length.FromMillimetres(15)) };
        var face = CardComposer.Journaling(Story, style, Card, EvenShaper.Only, null, "7 a.m.");
        var indent = Length.FromMillimetres(15).Points;
        face.Fit!.Lines.ShouldAllBe(l => l.X >= style.Margin.Points + indent - 1e-6);
        var hour = face.Runs[0];
        (hour.Text, hour.Baseline).ShouldBe(("7 a.m.", face.Fit.Lines[0].Baseline));
        hour.X.ShouldBe(style.Margin.Points, 1e-6);
    }

    [Fact]
    public void A_picture_takes_room_only_on_cards_that_carry_one()
    {
        var style = BuiltInCardStyles.Find("peel-picture", CardKind.Journaling);
        var without = CardComposer.Journaling(Story, style.WithoutPicture(), Card, EvenShaper.Only);
        var with = CardComposer.Journaling(Story, style, Card, EvenShaper.Only);
        without.Opening.ShouldBeNull();
        with.Opening.ShouldNotBeNull();
        with.Fit!.SizePt.ShouldBeLessThan(without.Fit!.SizePt);
        // Beside the picture lines are short, below it they are long.
        with.Fit.Slots.Select(s => Math.Round(s.Width)).Distinct().Count().ShouldBe(2);

        // In a story only the cards with a picture give up room.
        var flow = StoryFlow.Over(
            string.Join(' ', Enumerable.Repeat(Story, 4)),
            style with
            {
                Type = style.Type with { SmallestPt = 9, LargestPt = 9 },
            },
            [Card, Card, Card],
            EvenShaper.Only,
            new HashSet<int> { 0 }
        );
        flow.Parts[0].Lines.ShouldBeGreaterThan(0);
        CardComposer
            .Fit(
                flow.Parts[1].Of(string.Join(' ', Enumerable.Repeat(Story, 4))),
                style.WithoutPicture() with
                {
                    Type = style.Type with { SmallestPt = 9, LargestPt = 9 },
                },
                Card,
                EvenShaper.Only
            )
            .Fits.ShouldBeTrue();
    }

    [Fact]
    public void The_date_stands_where_the_style_has_a_place_for_it_and_nowhere_else()
    {
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role == StyleRole.Words))
        {
            var marked = CardComposer
                .Journaling(Story, style, Size.FromInches(4, 6), EvenShaper.Only, null, "Wed 6 May")
                .Runs.Count(r => r.Text.Contains("Wed", StringComparison.OrdinalIgnoreCase));
            marked.ShouldBe(
                style.Dress == CardDress.CornerTag
                || style.Zones.Indent > Length.Zero
                || style.Zones.BandPrinted
                || style.Plan is { Head: not HeadPlan.Heading }
                    ? 1
                    : 0,
                style.Key
            );
        }
    }

    [Fact]
    public void An_hour_a_day_and_a_card_of_a_day_have_a_mark_and_a_week_has_none()
    {
        var saturday = new LocalDate(2026, 5, 9);
        var twelve = new DateStyle(DateOrder.DayMonth, HourClock.Twelve);
        ComputedCards.Mark(UnitDates.OfHour(saturday, 13), null, twelve).ShouldBe("1 p.m.");
        ComputedCards.Mark(UnitDates.OfHour(saturday, 0), null, twelve).ShouldBe("12 a.m.");
        ComputedCards.Mark(UnitDates.Numbered(saturday, 3), null, twelve).ShouldBe("Mon 11 May");
        var week = UnitDates.Of(new WeekCalendar(WeekScheme.Iso, saturday).Holding(saturday));
        ComputedCards.Mark(week, null, twelve).ShouldBeNull();
        ComputedCards.Mark(week, saturday, twelve).ShouldBe("Sat 9 May");
    }

    [Fact]
    public void The_title_of_a_day_is_computed_from_its_date()
    {
        var face = CardComposer.DayTitle(
            new LocalDate(2026, 2, 28),
            BuiltInCardStyles.Find("title-peel", CardKind.DayTitle),
            Card,
            EvenShaper.Only
        );
        face.Runs.Select(r => r.Text).ShouldBe(["SATURDAY", "28", "February 2026"]);
    }

    [Fact]
    public void Words_by_hand_are_shared_out_without_losing_one()
    {
        Gen.Select(Gen.Int[0, 200], Gen.Int[1, 40].Array[1, 6])
            .Sample(
                (count, holds) =>
                {
                    var words = Enumerable.Range(0, count).Select(i => $"w{i}").ToList();
                    var story = string.Join(' ', words);
                    var (parts, over) = StoryFlow.ByHand(story, holds);
                    parts.Length.ShouldBe(holds.Length);
                    over.ShouldBe(Math.Max(0, count - holds.Sum()));
                    var told = parts
                        .SelectMany(p => p.Of(story).Split(' ', StringSplitOptions.RemoveEmptyEntries))
                        .ToList();
                    told.ShouldBe(words.Take(count - over));
                    parts
                        .Select(
                            (p, i) => p.Of(story).Split(' ', StringSplitOptions.RemoveEmptyEntries).Length <= holds[i]
                        )
                        .ShouldAllBe(fits => fits);
                }
            );
    }

    [Fact]
    public void A_style_of_ones_own_is_checked_and_a_card_is_never_without_one()
    {
        var own = Style with { Key = "own-1", Name = "Mine", Family = "Mine" };
        var album = (AlbumWords.Usual with { OwnStyles = [own], Family = "Mine" }).Checked();
        album.NewStyle(CardKind.Journaling).Key.ShouldBe("own-1");
        album.NewStyle(CardKind.WeekTitle).Role.ShouldBe(StyleRole.Title, "a family that lacks a kind borrows it");
        album.Style("own-1", CardKind.Journaling).ShouldBe(own);
        (album with { OwnStyles = [], Family = "Peel" }).Style("own-1", CardKind.Journaling).Family.ShouldBe("Peel");

        foreach (
            var wrong in new[]
            {
                own with
                {
                    Name = "",
                },
                own with
                {
                    Type = own.Type with { SmallestPt = 5 },
                },
                own with
                {
                    Type = own.Type with { LargestPt = 6 },
                },
                own with
                {
                    Margin = Length.FromMillimetres(2),
                },
                own with
                {
                    Columns = 4,
                },
                own with
                {
                    BorderPt = double.NaN,
                },
                own with
                {
                    Corner = Length.FromMillimetres(13),
                },
                own with
                {
                    Zones = new CardZones(PictureShare: 0.9),
                },
            }
        )
        {
            Should.Throw<RuleException>(() => wrong.Checked());
        }

        Should.Throw<RuleException>(() => (album with { Family = "Nobody" }).Checked());
        Should.Throw<RuleException>(() => (album with { OwnStyles = [own, own] }).Checked());
        Should.Throw<RuleException>(() => (album with { OwnStyles = [own with { Key = "typewriter" }] }).Checked());
    }

    [Fact]
    public void Two_written_cards_become_one_and_a_pocket_is_free()
    {
        var (one, two) = (Guid.NewGuid(), Guid.NewGuid());
        var content = ZestyPocket
            .Core.Placing.UnitContent.Empty.AddCard(one, CardKind.Journaling, "Rain.", "typewriter")
            .AddCard(two, CardKind.Journaling, "Then sun.", "typewriter");
        var joined = content.JoinCards(one, two);
        joined
            .Pieces.ShouldHaveSingleItem()
            .ShouldBeOfType<ZestyPocket.Core.Placing.Card>()
            .Words.ShouldBe("Rain.\n\nThen sun.");
        Should.Throw<RuleException>(() => content.JoinCards(one, one));
        Should.Throw<RuleException>(() =>
            content.AddCard(Guid.Empty, CardKind.Filler, "", "filler-dots").JoinCards(one, Guid.Empty)
        );
    }
}
