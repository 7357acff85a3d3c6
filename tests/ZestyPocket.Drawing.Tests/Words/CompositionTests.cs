using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Words;

/// <summary>Composed cards as they are painted: how much of them is covered, and what their recipe says.</summary>
public sealed class CompositionTests : IDisposable
{
    private readonly FontShelf _fonts = new();

    public void Dispose() => _fonts.Dispose();

    private static readonly string[] Vocabulary =
    [
        "rain",
        "a",
        "marmalade",
        "window",
        "the",
        "Wednesday",
        "of",
        "we",
        "through",
        "I",
        "extraordinary.",
        "boats,",
        "home",
    ];

    /// <summary>
    /// A card is looked at in squares of an eighth of an inch: covered is a square with words or ornament on it. Words
    /// that are large or stand with an ornament cover more than a small line in a corner could.
    /// </summary>
    [Trait("Duration", "Long")]
    [Fact]
    public void No_card_shows_one_small_line_in_a_corner()
    {
        var dice = new Random(20261126);
        var styles = BuiltInCardStyles
            .All.Where(s => s.PlanKey is not null && !s.Ruled && s.Role is StyleRole.Words or StyleRole.Quote)
            .Select(s => s.WithoutPicture())
            .ToList();
        Size[] cuts = [Size.FromInches(3, 4), Size.FromInches(6, 4), Size.FromInches(4, 6), Size.FromInches(6, 8)];
        var seen = new List<(string Key, double Covered)>();
        var stories = Thorough.Of(1_000, 300);
        for (var i = 0; i < stories; i++)
        {
            var (style, cut) = (styles[i % styles.Count], cuts[dice.Next(cuts.Length)]);
            var words = string.Join(
                ' ',
                Enumerable.Range(0, 6 + dice.Next(90)).Select(_ => Vocabulary[dice.Next(Vocabulary.Length)])
            );
            var face = CardComposer.Journaling(words, style, cut, _fonts);
            if (face.Fit!.Fits && words.Length >= CardPlan.LettersToCover)
            {
                seen.Add((style.Key, Covered(style, face)));
            }
        }

        seen.Count.ShouldBeGreaterThan(stories * 9 / 10);
        foreach (var (key, covered) in seen)
        {
            covered.ShouldBeInRange(CardPlan.LeastCovered, 1, key);
        }
    }

    [Fact]
    public void Everything_that_is_drawn_on_a_card_is_in_its_recipe()
    {
        var ink = new Rgb(1, 2, 3);
        var plain = new CardFace(216, 288, new Rgb(250, 250, 250), [], [], [], [], null);
        ImmutableArray<CardFace> others =
        [
            plain,
            plain with
            {
                Width = 200,
            },
            plain with
            {
                Paper = ink,
            },
            plain with
            {
                Boxes = [new InkBox(1, 1, 1, 1, ink)],
            },
            plain with
            {
                Rules = [new InkLine(1, 1, 2, 2, 1, ink)],
            },
            plain with
            {
                Discs = [new InkDisc(1, 1, 1, 0, ink)],
            },
            plain with
            {
                Runs = [new TypeRun(Typeface.Sans, 9, 1, 1, "a", ink)],
            },
            plain with
            {
                Runs = [new TypeRun(Typeface.Sans, 9, 1, 1, "a", ink) { Tracking = 0.1 }],
            },
            plain with
            {
                Runs = [new TypeRun(Typeface.Sans, 9, 1, 1, "a", ink, [1])],
            },
            plain with
            {
                Numerals = [new TypeRun(Typeface.Sans, 9, 1, 1, "a", ink)],
            },
            plain with
            {
                Shapes = [new InkShape("M0 0h9", 0, 0, 1, ink, 1)],
            },
            plain with
            {
                Shapes = [new InkShape("M0 0h9", 0, 0, 1, ink, 1) { RoundEnds = true }],
            },
            plain with
            {
                Shapes = [new InkShape("M0 0h8", 0, 0, 1, ink, 1)],
            },
            plain with
            {
                Opening = new CardOpening(1, 1, 9, 9),
            },
            plain with
            {
                SmallOpenings = [new SmallOpening("2026-05-04", new CardOpening(1, 1, 9, 9))],
            },
            plain with
            {
                Border = new CardBorder(2, ink),
            },
            plain with
            {
                Corner = 4,
            },
        ];
        // Each member of a face that is drawn is changed above; a new one belongs there and into the recipe.
        typeof(CardFace)
            .GetProperties()
            .Select(p => p.Name)
            .ShouldBe(
                [
                    "Width",
                    "Height",
                    "Paper",
                    "Boxes",
                    "Rules",
                    "Discs",
                    "Runs",
                    "Fit",
                    "Shapes",
                    "Numerals",
                    "Opening",
                    "SmallOpenings",
                    "Border",
                    "Corner",
                ],
                ignoreOrder: true
            );
        var cut = Size.FromInches(3, 4);
        var hashes = others.Select(f => PieceRecipe.HashOf(new CardPieceFace(cut, f))).ToList();
        hashes.Distinct().Count().ShouldBe(others.Length);
    }

    [Fact]
    public void On_paper_with_a_ground_of_its_own_only_the_words_are_printed()
    {
        var style = BuiltInCardStyles.All.Single(s => s.Key == "almanac-journal");
        var cut = Size.FromInches(3, 4);
        var card = new CardPieceFace(cut, CardComposer.Journaling("Held up to the light.", style, cut, _fonts));
        var bare = card with { GroundShare = 0 };
        PieceRecipe.HashOf(bare).ShouldNotBe(PieceRecipe.HashOf(card));
        using var bitmap = Painted(bare);
        bitmap.Pixels[0].Alpha.ShouldBe((byte)0);
        bitmap.Pixels.Count(p => p.Alpha > 200).ShouldBeInRange(200, 6_000, "the words are there");
        using var whole = Painted(card);
        whole.Pixels.ShouldAllBe(p => p.Alpha == 255);

        SKBitmap Painted(PieceFace face)
        {
            var picture = new SKBitmap(216, 288, SKColorType.Rgba8888, SKAlphaType.Premul);
            picture.Erase(SKColors.Transparent);
            using var canvas = new SKCanvas(picture);
            new PiecePainter(_fonts, new NoPictures()).Draw(canvas, face, 72);
            return picture;
        }
    }

    [Fact]
    public void A_finished_piece_is_painted_inside_its_outlines()
    {
        var cut = Size.FromInches(3, 4);
        var mat = Outline.In(new Rect(Length.Zero, Length.Zero, cut), CutShape.Circle, Length.Zero);
        var inner = mat.Inset(Length.FromInches(1, 4));
        var (red, blue) = (new Rgb(200, 30, 30), new Rgb(30, 30, 200));
        var face = new FinishedFace(cut, [new FinishPart("mat", mat, red, []), new FinishPart("", inner, blue, [])]);
        using var picture = new SKBitmap(216, 288, SKColorType.Rgba8888, SKAlphaType.Premul);
        picture.Erase(SKColors.Transparent);
        using (var canvas = new SKCanvas(picture))
        {
            new PiecePainter(_fonts, new NoPictures()).Draw(canvas, face, 72);
        }

        // From the middle outwards: print to 90 points, mat to 108, nothing in the corners.
        (picture.GetPixel(108, 144).Blue, picture.GetPixel(108 + 86, 144).Blue).ShouldBe(((byte)200, (byte)200));
        picture.GetPixel(108 + 95, 144).Red.ShouldBe((byte)200);
        picture.GetPixel(108, 144 - 99).Red.ShouldBe((byte)200);
        picture.GetPixel(2, 2).Alpha.ShouldBe((byte)0);
        picture.GetPixel(108, 20).Alpha.ShouldBe((byte)0);
        face.Part(1).Cut.ShouldBe(Size.FromInches(2.5m, 2.5m));
        face.Part(0).Cut.ShouldBe(Size.FromInches(3, 3));
        PieceRecipe.HashOf(face).ShouldNotBe(PieceRecipe.HashOf(face.Part(0)));
    }

    [Fact]
    public void Every_pictogram_can_be_drawn_inside_its_square()
    {
        foreach (var name in Pictograms.Names)
        {
            var shape = Pictograms.At(name, 0, 0, Pictograms.Edge, new Rgb(0, 0, 0));
            using var path = SKPath.ParseSvgPathData(shape.Path);
            path.ShouldNotBeNull(name);
            path.TightBounds.Left.ShouldBeGreaterThanOrEqualTo(0, name);
            path.TightBounds.Top.ShouldBeGreaterThanOrEqualTo(0, name);
            path.TightBounds.Right.ShouldBeLessThanOrEqualTo((float)Pictograms.Edge, name);
            path.TightBounds.Bottom.ShouldBeLessThanOrEqualTo((float)Pictograms.Edge, name);
        }
    }

    /// <summary>The share of squares within the margins that something is painted on.</summary>
    private double Covered(CardStyle style, CardFace face)
    {
        const int square = 9;
        var painter = new PiecePainter(_fonts, new NoPictures());
        var (width, height) = ((int)face.Width, (int)face.Height);
        using var bitmap = new SKBitmap(width, height);
        using (var canvas = new SKCanvas(bitmap))
        {
            var cut = new Size(Length.FromPoints((decimal)face.Width), Length.FromPoints((decimal)face.Height));
            painter.Draw(canvas, new CardPieceFace(cut, face), 72);
        }

        var margin = (int)Math.Min(style.Margin.Points, Math.Min(face.Width, face.Height) / 8);
        var pixels = bitmap.Pixels;
        var (all, covered) = (0, 0);
        for (var y = margin; y + square <= height - margin; y += square)
        {
            for (var x = margin; x + square <= width - margin; x += square)
            {
                all++;
                covered += Enumerable.Range(0, square * square).Any(i => Painted(x + (i % square), y + (i / square)))
                    ? 1
                    : 0;
            }
        }

        return covered / (double)all;

        bool Painted(int x, int y)
        {
            var p = pixels[(y * width) + x];
            // The pale squares of squared paper are ground, not ornament.
            return Math.Abs(p.Red - style.Paper.R)
                    + Math.Abs(p.Green - style.Paper.G)
                    + Math.Abs(p.Blue - style.Paper.B)
                > 90;
        }
    }

    private sealed class NoPictures : IPrintCrops
    {
        public byte[] Jpeg(PhotoFace face, double pixelsPerInch) => throw new NotSupportedException();
    }
}
