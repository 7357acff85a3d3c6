using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Every shipped style in every pocket size of every shipped page design.</summary>
public sealed class CardStyleTests
{
    private const string Story =
        "We planted beans. It rained all night and in the morning the kettle would not boil. Nobody minded.";

    private static readonly UnitDates Week = new(UnitKind.Week, new(2026, 5, 4), new(2026, 5, 10), 2026, 19, 19);

    public static TheoryData<string> Styles => [.. BuiltInCardStyles.All.Select(s => s.Key)];

    private static IEnumerable<Size> Pockets =>
        BuiltInDesigns.All.SelectMany(d => d.Pockets).Select(p => p.Nominal).Distinct();

    private static CardFace Face(CardStyle style, Size cut) =>
        style.Role switch
        {
            StyleRole.Title => CardComposer.UnitTitle(Week, default, style, cut, EvenShaper.Only),
            StyleRole.Filler => CardComposer.Filler(style, cut),
            StyleRole.Words => CardComposer.Journaling(Story, style, cut, EvenShaper.Only),
            _ => CardComposer.Journaling(Story, style, cut, EvenShaper.Only, "A heading"),
        };

    [Theory]
    [MemberData(nameof(Styles))]
    public void No_word_leaves_its_card_in_any_pocket(string key)
    {
        var style = BuiltInCardStyles.All.Single(s => s.Key == key);
        foreach (var cut in Pockets)
        {
            var face = Face(style, cut);
            (face.Width, face.Height).ShouldBe((cut.Width.Points, cut.Height.Points));
            foreach (var run in face.Runs)
            {
                run.X.ShouldBeGreaterThanOrEqualTo(0);
                (run.X + (run.Text.Length * 0.5 * run.SizePt)).ShouldBeLessThanOrEqualTo(
                    face.Width + 1e-6,
                    $"{key} {cut}: {run.Text}"
                );
                (run.Baseline - (0.8 * run.SizePt)).ShouldBeGreaterThanOrEqualTo(-1e-6);
                (run.Baseline + (0.2 * run.SizePt)).ShouldBeLessThanOrEqualTo(face.Height + 1e-3);
            }
        }
    }

    [Theory]
    [MemberData(nameof(Styles))]
    public void Words_do_not_run_into_what_the_style_puts_beside_them(string key)
    {
        var style = BuiltInCardStyles.All.Single(s => s.Key == key);
        foreach (var face in Pockets.Select(cut => Face(style, cut)).Where(_ => style.Role is not StyleRole.Filler))
        {
            foreach (var run in face.Runs)
            {
                var (left, right, top, bottom) = (
                    run.X,
                    run.X + (run.Text.Length * 0.5 * run.SizePt),
                    run.Baseline - (0.8 * run.SizePt),
                    run.Baseline + (0.2 * run.SizePt)
                );
                face.Boxes.ShouldAllBe(b =>
                    right <= b.X + 1e-6
                    || left >= b.X + b.Width - 1e-6
                    || bottom <= b.Y + 1e-6
                    || top >= b.Y + b.Height - 1e-6
                );
                face.Discs.ShouldAllBe(d =>
                    new DiscInTheWay(d.X, d.Y, d.Radius).Across(top, bottom) == null
                    || right <= new DiscInTheWay(d.X, d.Y, d.Radius).Across(top, bottom)!.Value.From
                    || left >= new DiscInTheWay(d.X, d.Y, d.Radius).Across(top, bottom)!.Value.To
                );
            }
        }
    }

    [Fact]
    public void Fillers_run_over_every_edge_so_that_a_cut_a_little_off_shows_no_paper()
    {
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role == StyleRole.Filler && s.PatternKey is null))
        {
            var face = CardComposer.Filler(style, Size.FromInches(3, 4));
            var right = face
                .Discs.Select(d => d.X + d.Radius)
                .Concat(face.Rules.Select(r => Math.Max(r.X1, r.X2)))
                .Max();
            var down = face
                .Discs.Select(d => d.Y + d.Radius)
                .Concat(face.Rules.Select(r => Math.Max(r.Y1, r.Y2)))
                .Max();
            right.ShouldBeGreaterThanOrEqualTo(face.Width - 8, style.Key);
            down.ShouldBeGreaterThanOrEqualTo(face.Height - 8, style.Key);
        }
    }

    [Fact]
    public void Each_family_can_dress_every_kind_of_card()
    {
        foreach (var family in BuiltInCardStyles.All.Select(s => s.Family).Distinct())
        {
            foreach (var kind in Enum.GetValues<CardKind>())
            {
                var style = (AlbumWords.Usual with { Family = family }).NewStyle(kind);
                (style.Family, style.Suits(kind)).ShouldBe((family, true));
            }
        }

        BuiltInCardStyles.All.Select(s => s.Family).Distinct().Count().ShouldBeGreaterThanOrEqualTo(6);
        BuiltInCardStyles.All.Length.ShouldBeGreaterThanOrEqualTo(48);
        BuiltInCardStyles.All.Select(s => s.Key).ShouldBeUnique();
        // A keeper may make a style of their own from any of them.
        BuiltInCardStyles.All.ShouldAllBe(s => StyleText.Of(s).ToStyle(s.Key) == s);
        // A style that does not suit a kind gives way to one of its own family.
        BuiltInCardStyles.Find("note-hand", CardKind.Overheard).Family.ShouldBe("Sprig");
    }

    [Fact]
    public void The_first_families_are_offered_only_in_an_album_that_keeps_to_one_of_them()
    {
        var first = BuiltInCardStyles.All.Where(s => BuiltInCardStyles.IsFirst(s.Family)).ToList();
        first.Select(s => s.Family).Distinct().ShouldBe(["Peel", "Slate", "Sprig"]);
        var today = AlbumWords.Usual with { Family = BuiltInCardStyles.NewAlbumFamily };
        first.ShouldAllBe(s => !today.Offers(s));
        BuiltInCardStyles.All.Except(first).ShouldAllBe(s => today.Offers(s));
        // Every kind of card is still to be had, whatever the keeper's own family lacks.
        var own = BuiltInCardStyles.All[0] with
        {
            Key = "own-1",
            Family = "Kitchen",
        };
        var kitchen = today with { OwnStyles = [own], Family = "Kitchen" };
        kitchen.Offers(own).ShouldBeTrue();
        foreach (var kind in Enum.GetValues<CardKind>())
        {
            kitchen
                .NewStyle(kind)
                .ShouldSatisfyAllConditions(s => s.Suits(kind).ShouldBeTrue(), s => kitchen.Offers(s).ShouldBeTrue());
        }

        AlbumWords.Usual.Family.ShouldBe("Peel");
        BuiltInCardStyles.All.ShouldAllBe(s => AlbumWords.Usual.Offers(s));
        first.ShouldAllBe(s => today.Style(s.Key, Enum.GetValues<CardKind>().First(s.Suits)) == s);
    }

    [Theory]
    [MemberData(nameof(Styles))]
    public void Every_word_of_every_style_has_the_contrast_that_reading_asks_for(string key)
    {
        var style = BuiltInCardStyles.All.Single(s => s.Key == key);
        foreach (var run in Face(style, Size.FromInches(3, 4)).Runs.Where(_ => style.PlanKey is not null))
        {
            // Source: WCAG 2.2, 1.4.3, contrast (minimum).
            Rgb.Contrast(run.Ink, style.Paper).ShouldBeGreaterThanOrEqualTo(4.5, $"{key}: {run.Text}");
        }
    }

    [Fact]
    public void A_card_written_by_hand_has_lines_and_no_words()
    {
        var face = CardComposer.ByHand(
            Story,
            BuiltInCardStyles.Find("typewriter", CardKind.Journaling),
            Size.FromInches(3, 4),
            HandCapacity.Usual,
            EvenShaper.Only
        );
        face.Runs.ShouldBeEmpty();
        face.Rules.Length.ShouldBe(13);
        (face.Fit!.LinesThatFit, face.Fit.Words, face.Fit.WordsOver, face.Fit.SizePt).ShouldBe((13, 18, 0, 0));
        (face.Rules[1].Y1 - face.Rules[0].Y1).ShouldBe(HandCapacity.Usual.LinePitch.Points, 1e-6);
    }
}
