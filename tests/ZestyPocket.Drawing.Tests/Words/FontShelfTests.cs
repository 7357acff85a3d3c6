using CsCheck;
using SkiaSharp;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Words;

/// <summary>The lines in the sum and the lines in the PDF are the same lines.</summary>
public sealed class FontShelfTests : IDisposable
{
    private readonly FontShelf _fonts = new();

    public void Dispose() => _fonts.Dispose();

    [Fact]
    public void Kerned_pairs_are_narrower_than_their_letters_apart()
    {
        var pair = _fonts.Shape(Typeface.Serif, "AV").Ends[^1];
        var apart = _fonts.Shape(Typeface.Serif, "A").Ends[^1] + _fonts.Shape(Typeface.Serif, "V").Ends[^1];
        pair.ShouldBeLessThan(apart - 0.02);
    }

    [Fact]
    public void A_typewriter_face_gives_every_letter_the_same_width()
    {
        var ends = _fonts.Shape(Typeface.Typewriter, "Wi.m").Ends;
        for (var i = 1; i < ends.Count; i++)
        {
            (ends[i] - ends[i - 1]).ShouldBe(0.6, 0.01);
        }
    }

    /// <param name="seed">Of a text that once failed: a mark that pulls its letter back; null for any other.</param>
    [Theory]
    [InlineData(null)]
    [InlineData("6HuMH-SPZ9f2")]
    public void Any_text_can_be_shaped_and_its_widths_only_grow(string? seed)
    {
        Gen.String[
                Gen.OneOf(
                    Gen.Char['a', 'z'],
                    Gen.Char[' ', '~'],
                    Gen.Char['\u00C0', '\u024F'],
                    Gen.Char['\u0590', '\u05FF'],
                    Gen.Char['\u4E00', '\u4E50'],
                    Gen.Char['\uD800', '\uDFFF']
                )
            ]
            .Sample(
                text =>
                {
                    foreach (var face in Enum.GetValues<Typeface>())
                    {
                        var shaped = _fonts.Shape(face, text);
                        shaped.Ends.Count.ShouldBe(text.Length + 1);
                        shaped.Ends.ShouldBe(shaped.Ends.Order());
                    }
                },
                seed: seed,
                iter: seed is null ? 60 : 1
            );
    }

    [Theory]
    [InlineData(451, 5)]
    [InlineData(300, 4)]
    [InlineData(120, 3)]
    public void A_story_leaves_no_card_empty_at_the_smallest_size_while_a_larger_one_fits(int words, int cards)
    {
        var style = BuiltInCardStyles.All.First(s => s.Dress == CardDress.RisingDisc && s.Role == StyleRole.Words);
        string[] vocabulary =
        [
            "we",
            "walked",
            "along",
            "the",
            "river",
            "and",
            "afterwards",
            "somebody",
            "remembered",
            "marmalade",
        ];
        var dice = new Random(3);
        var story = string.Join(' ', Enumerable.Range(0, words).Select(_ => vocabulary[dice.Next(vocabulary.Length)]));
        var card = Size.FromInches(3, 4);
        var flow = StoryFlow.Over(story, style, [.. Enumerable.Repeat(card, cards)], _fonts);
        flow.Fits.ShouldBeTrue();
        flow.SizePt.ShouldBeGreaterThan(style.Type.SmallestPt);
        flow.Parts.ShouldAllBe(p => p.Lines > 0);
    }

    [Fact]
    public void The_cards_that_are_promised_hold_the_story_at_the_size_that_is_promised()
    {
        var dice = new Random(7);
        string[] vocabulary =
        [
            "we",
            "walked",
            "Wednesday's",
            "the",
            "river",
            "extraordinary",
            "afterwards",
            "a",
            "I",
            "marmalade",
        ];
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role == StyleRole.Words))
        {
            for (var i = 0; i < 6; i++)
            {
                var story = string.Join(
                    ' ',
                    Enumerable.Range(0, 40 + dice.Next(500)).Select(_ => vocabulary[dice.Next(vocabulary.Length)])
                );
                var card = i % 2 == 0 ? Size.FromInches(3, 4) : Size.FromInches(6, 4);
                var (cards, size) = StoryFlow.Needed(story, style, card, 9, _fonts);
                cards.ShouldBeGreaterThan(0);
                var flow = StoryFlow.Over(story, style, [.. Enumerable.Repeat(card, cards)], _fonts);
                (flow.Fits, flow.SizePt).ShouldBe((true, size));
                flow.Parts.ShouldAllBe(p => p.Lines > 0);
                size.ShouldBeGreaterThan(Math.Min(9, style.Type.LargestPt) - TypeRange.StepPt);
            }
        }
    }

    [Fact]
    public void Patterns_run_over_every_edge_so_that_a_cut_a_little_off_shows_no_paper()
    {
        foreach (var style in BuiltInCardStyles.All.Where(s => s.PatternKey is not null))
        {
            foreach (var cut in new[] { Size.FromInches(3, 4), Size.FromInches(6, 4), Size.FromInches(2, 2) })
            {
                var face = CardComposer.Filler(style, cut);
                var all = SKRect.Empty;
                foreach (var shape in face.Shapes)
                {
                    using var path = SKPath.ParseSvgPathData(shape.Path);
                    path.ShouldNotBeNull(style.Key);
                    all.Union(path.Bounds);
                }

                // As far as the spacing of its tiles, which is at most half an inch.
                all.Left.ShouldBeLessThanOrEqualTo(8, style.Key);
                all.Top.ShouldBeLessThanOrEqualTo(8, style.Key);
                all.Right.ShouldBeGreaterThanOrEqualTo((float)face.Width - 8, style.Key);
                all.Bottom.ShouldBeGreaterThanOrEqualTo((float)face.Height - 8, style.Key);
            }
        }
    }

    public static TheoryData<string> Styles =>
        [
            .. BuiltInCardStyles
                .All.Where(s => s.Role is StyleRole.Words or StyleRole.Quote or StyleRole.Rows)
                .Select(s => s.Key),
        ];

    [Theory]
    [MemberData(nameof(Styles))]
    public void The_lines_of_the_sum_are_the_lines_of_the_pdf(string styleKey)
    {
        var style = BuiltInCardStyles.All.Single(s => s.Key == styleKey);
        string[] vocabulary =
        [
            "rain",
            "a",
            "marmalade",
            "window",
            "the",
            "office",
            "Wednesday",
            "of",
            "we",
            "through",
            "kite-string",
            "fluffy",
            "I",
            "extraordinary",
            "and",
            "boats,",
        ];
        var dice = new Random(5);
        var sizes = new[] { Size.FromInches(3, 4), Size.FromInches(6, 4), Size.FromInches(2, 2) };
        var faces = Enumerable
            .Range(0, 90)
            .Select(i =>
                CardComposer.Journaling(
                    string.Join(
                        ' ',
                        Enumerable.Range(0, 5 + dice.Next(70)).Select(_ => vocabulary[dice.Next(vocabulary.Length)])
                    ),
                    style,
                    sizes[i % 3],
                    _fonts
                )
            )
            .ToList();
        var path = Path.GetTempFileName();
        try
        {
            using (var file = new FileStream(path, FileMode.Truncate, FileAccess.ReadWrite))
            {
                PdfFile.Write(
                    file,
                    "Cards",
                    faces.Select(face => new PdfPage(
                        face.Width,
                        face.Height,
                        canvas =>
                        {
                            foreach (var run in face.Runs)
                            {
                                _fonts.Draw(canvas, run);
                            }
                        }
                    ))
                );
            }

            using var pdf = PdfDocument.Open(path);
            foreach (var (face, page) in faces.Zip(pdf.GetPages()))
            {
                Lines(page, face)
                    .ShouldBe(face.Fit!.Lines.Select(l => l.Text.Replace(" ", "", StringComparison.Ordinal)));
                page.Letters.Max(l => l.BoundingBox.Right).ShouldBeLessThanOrEqualTo(face.Width);
                // What the sum says a line is wide is what the PDF sets.
                foreach (var (line, set) in face.Fit.Lines.Zip(Rows(page, face)))
                {
                    // A face may kern its last letter against the blank that hangs over the edge: up to 0.06 em.
                    (set.Max(l => l.EndBaseLine.X) - set.Min(l => l.StartBaseLine.X)).ShouldBe(
                        line.Width,
                        Math.Max(0.35, 0.06 * face.Fit.SizePt)
                    );
                }
            }
        }
        finally
        {
            File.Delete(path);
        }

        // Column by column, top down.
        static IEnumerable<IGrouping<(int, double), Letter>> Rows(Page page, CardFace face)
        {
            var columns = face.Fit!.Lines.GroupBy(l => l.Area).Select(a => a.Min(l => l.X)).Order().ToList();
            return page
                .Letters.GroupBy(l =>
                    (columns.FindLastIndex(x => l.StartBaseLine.X >= x - 1), -Math.Round(l.StartBaseLine.Y, 1))
                )
                .OrderBy(g => g.Key);
        }

        // PdfPig names a ligature by its own sign: spelt out again.
        static IEnumerable<string> Lines(Page page, CardFace face) =>
            Rows(page, face)
                .Select(g =>
                    string.Concat(g.OrderBy(l => l.StartBaseLine.X).Select(l => SpeltOut(l.Value)))
                        .Replace(" ", "", StringComparison.Ordinal)
                );

        static string SpeltOut(string letter) =>
            letter switch
            {
                "\uFB00" => "ff",
                "\uFB01" => "fi",
                "\uFB02" => "fl",
                "\uFB03" => "ffi",
                "\uFB04" => "ffl",
                _ => letter,
            };
    }
}
