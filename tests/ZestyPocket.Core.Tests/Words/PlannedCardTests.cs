using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>How composed cards set their words.</summary>
public sealed class PlannedCardTests
{
    private static readonly string[] Vocabulary =
    [
        "we",
        "walked",
        "Wednesday",
        "the",
        "river",
        "extraordinary.",
        "a",
        "I",
        "marmalade!",
        "ran",
        "boats,",
        "home.",
    ];

    private static readonly Gen<string> Stories = Gen.Int[0, Vocabulary.Length - 1]
        .Array[1, 60]
        .Select(words => string.Join(' ', words.Select(w => Vocabulary[w])));

    private static readonly CardStyle[] WordStyles =
    [
        .. BuiltInCardStyles.All.Where(s => s.PlanKey is not null && s.Role == StyleRole.Words),
    ];

    private static readonly Size[] Cuts =
    [
        Size.FromInches(3, 4),
        Size.FromInches(6, 4),
        Size.FromInches(4, 6),
        Size.FromInches(2, 2),
    ];

    private static CardStyle Style(string key) => BuiltInCardStyles.All.Single(s => s.Key == key);

    [Trait("Duration", "Long")]
    [Fact]
    public void Even_lines_say_the_same_words_at_the_same_size_in_the_same_column()
    {
        Gen.Select(Stories, Gen.Int[0, WordStyles.Length - 1], Gen.Int[0, Cuts.Length - 1])
            .Sample(
                (story, styleAt, cutAt) =>
                {
                    var (style, cut) = (WordStyles[styleAt].WithoutPicture(), Cuts[cutAt]);
                    var area = CardComposer.Areas(style, cut)[0];
                    var plain = Copyfit.Fit(story, [area], PlannedCard.ForSize(style, cut).Type, EvenShaper.Only);
                    var fit = CardComposer.Fit(story, style, cut, EvenShaper.Only);
                    fit.Fits.ShouldBe(plain.Fits);
                    if (plain.SizePt <= PlannedCard.DisplayPt)
                    {
                        fit.SizePt.ShouldBe(plain.SizePt);
                    }
                    else
                    {
                        // Display type gives way for a better shape, by a third at most.
                        fit.SizePt.ShouldBeInRange(plain.SizePt * 0.66, plain.SizePt);
                    }

                    if (!fit.Fits)
                    {
                        return;
                    }

                    // A drop capital stands by itself before the first line.
                    var capital = fit.Lines[0].Start == 1 ? story[..1] : string.Empty;
                    (capital + string.Join(' ', fit.Lines.Select(l => l.Text))).ShouldBe(story);
                    foreach (var line in fit.Lines)
                    {
                        line.Width.ShouldBeLessThanOrEqualTo(area.WidestPt(fit.SizePt) + 1e-6);
                        line.Baseline.ShouldBeInRange(area.Y, area.Y + area.Height);
                    }
                },
                iter: Thorough.Of(10_000, 3_000)
            );
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void No_word_stands_alone_on_a_last_line_where_two_could()
    {
        Gen.Select(Stories, Gen.Int[0, WordStyles.Length - 1])
            .Sample(
                (story, styleAt) =>
                {
                    var style = WordStyles[styleAt].WithoutPicture();
                    var fit = CardComposer.Fit(story, style, Cuts[0], EvenShaper.Only);
                    if (!fit.Fits || fit.Lines.Length < 2 || Copyfit.CountWords(fit.Lines[^1].Text) > 1)
                    {
                        return;
                    }

                    // Then no other break into as many lines has two words on the last: the last but one holds a single
                    // word itself, or its last word and the lonely one are wider than the column.
                    var before = fit.Lines[^2].Text;
                    var together = $"{before[(before.LastIndexOf(' ') + 1)..]} {fit.Lines[^1].Text}";
                    var tooWide = together.Length * 0.5 * fit.SizePt > fit.Slots[0].Width + 1e-6;
                    (Copyfit.CountWords(before) == 1 || tooWide).ShouldBeTrue(story);
                },
                iter: Thorough.Of(10_000, 3_000)
            );
    }

    [Fact]
    public void A_sentence_begins_on_a_new_line_rather_than_with_its_first_word_at_the_end_of_one()
    {
        const string story = "Nobody saw the boat come in that night. It lay there, quite still, until the sun was up.";
        var fit = LineBalance.Improve(
            story,
            Copyfit.Fit(story, 240, 200, new TypeRange(Typeface.Sans, 10, 10, 1.3), EvenShaper.Only),
            new TypeRange(Typeface.Sans, 10, 10, 1.3),
            EvenShaper.Only,
            even: false
        );
        fit.Lines.Select(l => l.Text).ShouldNotContain(l => l.EndsWith(" It", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(WordsPlace.Foot, "ledger-journal")]
    [InlineData(WordsPlace.Third, "almanac-journal")]
    public void A_few_words_stand_where_the_family_has_them(WordsPlace place, string key)
    {
        var style = Style(key) with { Type = Style(key).Type with { LargestPt = 20 } };
        var area = CardComposer.Areas(style, Cuts[1])[0];
        var fit = CardComposer.Fit("Nobody minded.", style, Cuts[1], EvenShaper.Only);
        var under = area.Y + area.Height - fit.Lines[^1].Baseline - (0.2 * fit.SizePt);
        var over = fit.Lines[0].Baseline - (0.8 * fit.SizePt) - area.Y;
        if (place == WordsPlace.Foot)
        {
            under.ShouldBe(0, 1e-6);
        }
        else
        {
            (over / (over + under)).ShouldBe(1 / 3.0, 1e-6);
        }
    }

    [Fact]
    public void Typed_words_stand_on_the_rules()
    {
        foreach (var style in WordStyles.Where(s => s.Ruled))
        {
            var face = CardComposer.Journaling("Soup again.\nNobody minded.", style, Cuts[0], EvenShaper.Only);
            var rules = face.Rules.Select(r => r.Y1).ToList();
            foreach (var line in face.Fit!.Lines)
            {
                var under = line.Baseline + (CardComposer.RuleUnderEm * face.Fit.SizePt);
                rules.ShouldContain(r => Math.Abs(r - under) < 1e-6, style.Key);
            }
        }
    }

    [Fact]
    public void A_story_may_begin_with_a_letter_three_lines_high_and_loses_none()
    {
        const string story =
            "The rain stopped at ten and we took the long way round by the weir. Four herons, one box, no lunch, and "
            + "the kettle would not boil when we were home at last.";
        var style = Style("almanac-journal") with { Type = Style("almanac-journal").Type with { LargestPt = 10 } };
        var face = CardComposer.Journaling(story, style, Cuts[0], EvenShaper.Only);
        face.Fit!.Lines[0].Start.ShouldBe(1);
        face.Fit.Lines[0].Text.ShouldStartWith("he ");
        var capital = face.Runs.Single(r => r.Face == Typeface.OldStyle);
        (capital.Text, capital.Baseline).ShouldBe(("T", face.Fit.Lines[2].Baseline));
        // The lines beside it begin to the right of it, the fourth under it.
        face.Fit.Lines[2].X.ShouldBeGreaterThan(capital.X + (0.5 * capital.SizePt));
        face.Fit.Lines[3].X.ShouldBe(capital.X, 1e-6);
    }

    [Fact]
    public void A_span_of_dates_on_a_title_is_parted_between_its_dates_only()
    {
        var week = new Core.Dates.UnitDates(Core.Dates.UnitKind.Week, new(2025, 12, 29), new(2026, 1, 4), 2026, 1, 1);
        foreach (var key in new[] { "almanac-title", "ledger-title", "zest-title", "paperboat-title" })
        {
            var face = CardComposer.UnitTitle(week, default, Style(key), Cuts[0], EvenShaper.Only);
            var lines = face.Fit!.Lines.Select(l => l.Text).ToList();
            string.Join(' ', lines).ShouldBe("29 December 2025 – 4 January 2026", key);
            lines.Skip(1).ShouldAllBe(l => l.StartsWith("4 January", StringComparison.Ordinal), key);
        }
    }

    [Fact]
    public void A_picture_on_a_card_lies_under_what_is_printed_over_the_words()
    {
        foreach (var style in WordStyles.Where(s => s.Zones.Picture != PicturePlace.None))
        {
            var face = CardComposer.Journaling("Soup again.", style, Cuts[0], EvenShaper.Only, null, "Wed 6 May");
            var opening = face.Opening!.Value;
            face.Rules.ShouldAllBe(r => r.Y1 < opening.Y, style.Key);
            foreach (var mark in face.Runs.Where(r => r.Text.Contains("Wed", StringComparison.OrdinalIgnoreCase)))
            {
                mark.Baseline.ShouldBeLessThan(opening.Y, style.Key);
            }
        }
    }

    [Theory]
    [InlineData("“It is resting.” Otto, about the oar", "“It is resting.”", "Otto, about the oar")]
    [InlineData("“It is resting.”\n— Otto", "“It is resting.”", "Otto")]
    [InlineData("It is resting.", "It is resting.", "")]
    [InlineData("“One.” “Two.”", "“One.” “Two.”", "")]
    public void A_quote_knows_who_said_it(string words, string said, string who) =>
        QuoteWords.Of(words).ShouldBe(new QuoteWords(said, who));

    [Theory]
    [InlineData("Otto, 64", "Otto", "64")]
    [InlineData("1,240 pictures", "pictures", "1,240")]
    [InlineData("From Wickerby", "From", "Wickerby")]
    [InlineData("High: the weir", "High", "the weir")]
    [InlineData("Sun 05:12 to 20:45", "Sun", "05:12 to 20:45")]
    [InlineData("15 h 33 min of daylight", "daylight", "15 h 33 min")]
    [InlineData("Rain, −2 to 4 °C", "Rain", "−2 to 4 °C")]
    [InlineData("Wren", "Wren", "")]
    [InlineData("The sun does not set", "The sun does not set", "")]
    public void A_row_says_what_and_how_much(string line, string name, string value) =>
        (CardRow.Of(line).Name, CardRow.Of(line).Value).ShouldBe((name, value));

    [Fact]
    public void A_line_of_display_type_rather_gets_smaller_than_hold_single_words()
    {
        const string words = "The second batch knows what it is doing.";
        var style = Style("signal-journal");
        var area = CardComposer.Areas(style, Cuts[0])[0];
        var type = PlannedCard.ForSize(style, Cuts[0]).Type;
        var largest = Copyfit.Fit(words, [area], type, EvenShaper.Only);
        largest.Lines.Count(l => Copyfit.CountWords(l.Text) == 1).ShouldBeGreaterThan(0);
        var fit = CardComposer.Fit(words, style, Cuts[0], EvenShaper.Only);
        fit.Lines.Count(l => Copyfit.CountWords(l.Text) == 1).ShouldBe(0);
    }

    [Fact]
    public void Where_from_and_where_to_are_a_journey_and_counts_are_large_figures()
    {
        var style = Style("zest-rows");
        var journey = CardComposer.Journaling(
            "From Wickerby\nTo Ashlock",
            style,
            Cuts[1],
            EvenShaper.Only,
            "From and to"
        );
        var (from, to) = (
            journey.Runs.Single(r => r.Text == "Wickerby"),
            journey.Runs.Single(r => r.Text == "Ashlock")
        );
        from.SizePt.ShouldBe(to.SizePt);
        from.Baseline.ShouldBeLessThan(to.Baseline);
        journey.Runs.Single(r => r.Text == "From").SizePt.ShouldBeLessThan(from.SizePt / 2);

        var figures = CardComposer.Journaling("9 days\n1,240 pictures", style, Cuts[1], EvenShaper.Only, "In numbers");
        var (days, label) = (figures.Runs.Single(r => r.Text == "9"), figures.Runs.Single(r => r.Text == "days"));
        label.SizePt.ShouldBeLessThan(days.SizePt / 2);
        (label.X, label.Baseline > days.Baseline).ShouldBe((days.X, true));
        figures.Fit!.Fits.ShouldBeTrue();
    }

    [Fact]
    public void A_prompt_that_is_not_finished_keeps_a_line_to_write_on()
    {
        var (open, said) = (CardRow.Of("thinking of "), CardRow.Of("reading an old map"));
        (open.Prompt, open.Name, open.Value).ShouldBe((true, "thinking of", ""));
        (said.Prompt, said.Name, said.Value).ShouldBe((true, "reading", "an old map"));
        var style = Style("almanac-rows");
        var face = CardComposer.Journaling(
            ComputedCards.Beginning(CardKind.Prompts),
            style,
            Cuts[0],
            EvenShaper.Only,
            "Today I am"
        );
        face.Fit!.Fits.ShouldBeTrue();
        // One rule for each of five beginnings, beside the one under the running head.
        face.Rules.Length.ShouldBe(6);
    }

    [Fact]
    public void Weather_and_beginnings_have_a_pictogram_and_a_name_has_none()
    {
        Pictograms.For("Rain").ShouldBe("rain");
        Pictograms.For("Light rain").ShouldBeNull();
        Pictograms.For("Sun").ShouldBe("sun");
        Pictograms.For("Sunniva").ShouldBeNull();
        Pictograms.For("reading").ShouldBe("book");
        Pictograms.For("Tobias").ShouldBeNull();
        Pictograms.For("Rainer").ShouldBeNull();
        Pictograms.Names.Count().ShouldBeGreaterThan(30);
    }

    [Fact]
    public void Highlighted_words_have_a_box_behind_each_of_their_lines_and_stay_readable()
    {
        const string story = "Junie counted four herons and one box that looked like a heron, and four herons more.";
        foreach (var style in WordStyles)
        {
            var marked = style.WithoutPicture() with { Highlight = "four herons" };
            var face = CardComposer.Journaling(story, marked, Cuts[0], EvenShaper.Only);
            var plain = CardComposer.Journaling(story, style.WithoutPicture(), Cuts[0], EvenShaper.Only);
            face.Fit!.Lines.ShouldBe(plain.Fit!.Lines, style.Key);
            var boxes = face.Boxes.Skip(plain.Boxes.Length).ToList();
            boxes.Count.ShouldBeInRange(2, 4, style.Key);
            boxes.ShouldAllBe(b => Rgb.Contrast(b.Ink, style.Ink) >= 4.5, style.Key);
            foreach (var box in boxes)
            {
                face.Fit.Lines.ShouldContain(
                    l => l.Baseline > box.Y && l.Baseline < box.Y + box.Height && box.X < l.X + l.Width,
                    style.Key
                );
            }
        }
    }

    [Fact]
    public void Rows_are_set_in_one_size_with_what_at_the_left_and_how_much_at_the_right()
    {
        var face = CardComposer.Journaling(
            "Otto, 64\nJunie, 6",
            Style("zest-rows"),
            Cuts[0],
            EvenShaper.Only,
            "Who was there"
        );
        face.Fit!.Fits.ShouldBeTrue();
        var rows = face.Runs.Where(r => r.SizePt == face.Fit.SizePt && r.Face == Style("zest-rows").Type.Face).ToList();
        rows.Select(r => r.Text).ShouldBe(["Otto", "64", "Junie", "6"]);
        var area = CardComposer.Areas(Style("zest-rows"), Cuts[0], heading: true)[0];
        foreach (var value in new[] { rows[1], rows[3] })
        {
            (value.X + (value.Text.Length * 0.5 * value.SizePt)).ShouldBe(area.X + area.Width, 1e-6);
        }
    }

    [Fact]
    public void There_are_twenty_patterns_or_more_and_a_seed_gives_one_card_for_ever()
    {
        FillerPatterns.Keys.Count().ShouldBeGreaterThanOrEqualTo(20);
        var style = Style("zest-dots");
        var shuffled = 0;
        foreach (var key in FillerPatterns.Keys)
        {
            var once = FillerPatterns.Of(key, style, 216, 288, seed: 7);
            FillerPatterns.Of(key, style, 216, 288, seed: 7).ShouldBe(once, key);
            once.ShouldNotBeEmpty();
            shuffled += FillerPatterns.Of(key, style, 216, 288, seed: 8).SequenceEqual(once) ? 0 : 1;
        }

        // A shuffle always shows.
        shuffled.ShouldBe(FillerPatterns.Keys.Count());
        Should.Throw<RuleException>(() => FillerPatterns.Of("nowhere", style, 1, 1, 1));
    }

    [Theory]
    [InlineData("1", "one")]
    [InlineData("19", "nineteen")]
    [InlineData("20", "twenty")]
    [InlineData("42", "forty-two")]
    [InlineData("99", "ninety-nine")]
    [InlineData("0", null)]
    [InlineData("100", null)]
    [InlineData("2–3", null)]
    public void Numbers_of_weeks_are_written_out_on_titles(string digits, string? words) =>
        Core.Measures.NumberWords.InFull(digits).ShouldBe(words);
}
