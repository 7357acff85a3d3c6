using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Words on pictures: a quiet place, an ink that can be read, and a label where there is none.</summary>
public sealed class PhotoWordsTests
{
    private static readonly Size Cut = Size.FromInches(6, 4);
    private static readonly double[] Sizes = [16, 12, 9];

    private static ToneMap Map(Func<int, int, (double Luminance, double Detail)> cell, int columns = 72, int rows = 48)
    {
        var cells = Enumerable.Range(0, columns * rows).Select(i => cell(i % columns, i / columns)).ToList();
        return new ToneMap(columns, rows, [.. cells.Select(c => c.Luminance)], [.. cells.Select(c => c.Detail)]);
    }

    private static QuietSpot? Find(
        string words,
        ToneMap tones,
        params (double X, double Y, double Width, double Height)[] keep
    ) => PhotoWords.Find(words, Typeface.Sans, Sizes, Cut, tones, keep, EvenShaper.Only);

    [Fact]
    public void Words_go_to_the_quiet_sky_in_dark_ink_and_to_the_quiet_night_in_white()
    {
        // Busy below, quiet and light in the upper third.
        var day = Find("First swim", Map((_, y) => y < 16 ? (0.8, 0.01) : (0.3, 0.2)))!;
        (day.Caption.Ink, day.WantsLabel, day.Caption.SizePt).ShouldBe((PhotoWords.Dark, false, 16));
        day.Caption.Y.ShouldBeLessThan(1.0 / 3);

        var night = Find("First swim", Map((_, y) => y > 32 ? (0.01, 0.01) : (0.4, 0.2)))!;
        (night.Caption.Ink, night.WantsLabel).ShouldBe((PhotoWords.White, false));
        night.Caption.Y.ShouldBeGreaterThan(2.0 / 3 - 0.01);
    }

    [Fact]
    public void What_must_be_kept_visible_is_never_written_over()
    {
        var everywhereQuiet = Map((_, _) => (0.9, 0));
        Gen.Select(Gen.Double[0, 0.5], Gen.Double[0, 0.5])
            .Sample(
                (x, y) =>
                {
                    (double X, double Y, double Width, double Height) face = (x, y, 0.4, 0.4);
                    var spot = Find("By the weir", everywhereQuiet, face)!.Caption;
                    var (boxes, runs) = PhotoWords.Draw(spot, Cut, EvenShaper.Only);
                    boxes.ShouldBeEmpty();
                    var (left, top, right, bottom) = (
                        spot.X,
                        spot.Y,
                        spot.X + spot.Width,
                        runs[^1].Baseline / Cut.Height.Points
                    );
                    (
                        left >= face.X + face.Width - 1e-9
                        || right <= face.X + 1e-9
                        || top >= face.Y + face.Height - 1e-9
                        || bottom <= face.Y + 1e-9
                    ).ShouldBeTrue();
                }
            );
    }

    [Fact]
    public void Grey_pictures_want_a_label_and_on_it_every_word_can_be_read()
    {
        // Luminance 0.18 is 4.6 to 1 against white and 3.2 to 1 against the dark ink; a busy mixture has neither.
        var grey = Map((x, y) => ((x + y) % 2 == 0 ? 0.1 : 0.5, 0.2));
        var spot = Find("Hard to read", grey)!;
        spot.WantsLabel.ShouldBeTrue();
        spot.Contrast.ShouldBeLessThan(4.5);
        var labelled = PhotoWords.OnLabel(spot.Caption);
        PhotoWords.Contrast(labelled, Cut, grey, EvenShaper.Only).ShouldBeGreaterThan(7);
        PhotoWords.Draw(labelled, Cut, EvenShaper.Only).Boxes.Length.ShouldBe(1);
    }

    [Fact]
    public void The_contrast_is_that_of_all_but_a_twentieth_of_what_lies_behind()
    {
        // Against counting by hand: sort the cells behind the words, leave the worst twentieth away.
        Gen.Select(Gen.Double[0, 1].Array[72 * 48], Gen.Bool)
            .Sample(
                (tones, dark) =>
                {
                    var map = Map((x, y) => (tones[(y * 72) + x], 0.1));
                    var caption = new PhotoCaption(
                        "Two words",
                        Typeface.Sans,
                        24,
                        0.1,
                        0.2,
                        0.8,
                        dark ? PhotoWords.Dark : PhotoWords.White,
                        null
                    );
                    var ink = caption.Ink.Luminance;
                    var words = PhotoWords.Draw(caption, Cut, EvenShaper.Only).Runs.Single();
                    var wide =
                        EvenShaper.Only.Shape(Typeface.Sans, words.Text).Width(0, words.Text.Length) * words.SizePt;
                    var metrics = EvenShaper.Only.Metrics(Typeface.Sans);
                    var high = (metrics.Ascent + metrics.Descent) * 24;
                    var (left, top) = ((int)(caption.X * 72), (int)(caption.Y * 48));
                    var (right, bottom) = (
                        (int)Math.Ceiling(((caption.X * Cut.Width.Points) + wide) / 6),
                        (int)Math.Ceiling(((caption.Y * Cut.Height.Points) + high) / 6)
                    );
                    var behind = Enumerable
                        .Range(top, bottom - top)
                        .SelectMany(y => Enumerable.Range(left, right - left).Select(x => tones[(y * 72) + x]))
                        .Select(t => (Math.Max(t, ink) + 0.05) / (Math.Min(t, ink) + 0.05))
                        .Order()
                        .ToList();
                    var exact = behind[behind.Count / 20];

                    var claimed = PhotoWords.Contrast(caption, Cut, map, EvenShaper.Only);
                    claimed.ShouldBeLessThanOrEqualTo(
                        exact + 1e-9,
                        "what is claimed is never better than what is there"
                    );
                    // A bin's edge is at most 1/32 of the root of luminance away; tones past the ink's own count as
                    // none.
                    claimed.ShouldBeGreaterThan(exact * 0.65);
                },
                iter: 60
            );
    }

    [Fact]
    public void Words_too_long_for_the_print_have_no_place_and_nonsense_is_refused()
    {
        var quiet = Map((_, _) => (0.9, 0));
        Find(string.Join(' ', Enumerable.Repeat("marmalade", 19)), quiet).ShouldNotBeNull();
        PhotoWords
            .Find(
                string.Join(' ', Enumerable.Repeat("marmalade", 19)),
                Typeface.Sans,
                [72],
                Size.FromInches(2, 2),
                quiet,
                [],
                EvenShaper.Only
            )
            .ShouldBeNull();
        // A large word is not split over lines.
        PhotoWords
            .Find("Marmaladekettle", Typeface.Sans, [72, 12], Size.FromInches(2, 2), quiet, [], EvenShaper.Only)!
            .Caption.SizePt.ShouldBe(12);

        var fine = new PhotoCaption("Hello", Typeface.Sans, 12, 0.1, 0.1, 0.5, PhotoWords.Dark, null);
        fine.Checked().ShouldBe(fine);
        foreach (
            var wrong in new[]
            {
                fine with
                {
                    Words = " ",
                },
                fine with
                {
                    SizePt = 2,
                },
                fine with
                {
                    X = double.NaN,
                },
                fine with
                {
                    Width = 0,
                },
                fine with
                {
                    Words = new string('x', 201),
                },
            }
        )
        {
            Should.Throw<RuleException>(() => wrong.Checked());
        }

        // On a smaller print the same words may run over the edge, and that is seen.
        PhotoWords.Inside(fine, Cut, EvenShaper.Only).ShouldBeTrue();
        PhotoWords.Inside(fine with { SizePt = 90, X = 0.6 }, Size.FromInches(3, 4), EvenShaper.Only).ShouldBeFalse();
    }
}
