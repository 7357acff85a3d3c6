using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Pages and pockets composed of shapes, with words that stay inside them.</summary>
public sealed class CompositionTests
{
    private static readonly string[] Vocabulary = ["we", "walked", "Wednesday", "the", "river", "a", "I", "home."];

    private static readonly Size Page = Size.FromInches(6, 8);

    [Fact]
    public void There_are_ten_compositions_to_begin_with_and_each_fits_every_size()
    {
        CompositionStarts.Names.Count.ShouldBeGreaterThanOrEqualTo(10);
        foreach (var (key, name) in CompositionStarts.Names)
        {
            foreach (var (w, h) in new[] { (2.0m, 2.0m), (3, 4), (4, 6), (6, 4), (6, 8), (12, 12) })
            {
                var cut = Size.FromInches(w, h);
                var made = CompositionStarts.Make(key, cut, Guid.Empty, [new Guid(1, 2, 3, new byte[8])], "zest-dots");
                made.Checked(_ => true).Shapes.ShouldNotBeEmpty(name);
                var whole = new Rect(Length.Zero, Length.Zero, cut);
                made.Shapes.ShouldAllBe(s => whole.Contains(s.On(cut).Bounds), name);
            }
        }

        Should.Throw<RuleException>(() => CompositionStarts.Make("none", Page, Guid.Empty, [], "zest-dots"));
    }

    [Fact]
    public void A_shape_snaps_to_edges_centre_and_thirds()
    {
        var inch = Length.FromInches(1);
        Rect At(AcrossPlace across, DownPlace down) =>
            new CompositionShape(CutShape.Rectangle, across, down, inch, inch).On(Page).Bounds;

        At(AcrossPlace.Left, DownPlace.Top).ShouldBe(new Rect(Length.Zero, Length.Zero, Size.FromInches(1, 1)));
        At(AcrossPlace.Right, DownPlace.Bottom).Right.ShouldBe(Page.Width);
        At(AcrossPlace.Right, DownPlace.Bottom).Bottom.ShouldBe(Page.Height);
        At(AcrossPlace.Centre, DownPlace.Middle).X.ShouldBe(Length.FromInches(2.5m));
        // A third of 6 in is 2 in: the middle of the shape stands there.
        At(AcrossPlace.FirstThird, DownPlace.Middle).X.ShouldBe(Length.FromInches(1.5m));
        At(AcrossPlace.SecondThird, DownPlace.Middle).X.ShouldBe(Length.FromInches(3.5m));
        // A shape too wide for its third stays on the piece.
        new CompositionShape(CutShape.Rectangle, AcrossPlace.FirstThird, DownPlace.Top, 5 * inch, inch)
            .On(Page)
            .Bounds.X.ShouldBe(Length.Zero);
    }

    [Fact]
    public void Words_never_leave_their_outline()
    {
        var type = new TypeRange(Typeface.Sans, 7, 36, 1.2);
        Gen.Select(
                Gen.Enum<CutShape>(),
                Gen.Double[1.2, 6],
                Gen.Double[1.2, 8],
                Gen.Int[0, Vocabulary.Length - 1].Array[1, 60]
            )
            .Sample(
                (shape, w, h, picks) =>
                {
                    var room = new Rect(
                        Length.FromInches(1),
                        Length.FromInches(1),
                        new Size(Length.FromPoints((decimal)(w * 72)), Length.FromPoints((decimal)(h * 72)))
                    );
                    var outline = Outline.In(room, shape, Length.FromInches(1, 4));
                    var story = string.Join(' ', picks.Select(i => Vocabulary[i]));
                    var fit = ShapeWords.Fit(story, outline, Composition.WordsInset, type, EvenShaper.Only);
                    if (fit.Fits)
                    {
                        string.Join(' ', fit.Lines.Select(l => l.Text)).ShouldBe(story);
                    }

                    // The box of each line's letters, corner by corner, against the shape's own equation.
                    foreach (var line in fit.Lines.Where(l => l.Width > 0))
                    {
                        var (top, foot) = (line.Baseline - (0.8 * fit.SizePt), line.Baseline + (0.2 * fit.SizePt));
                        foreach (var y in new[] { top, foot })
                        {
                            IsInside(outline, line.X, y).ShouldBeTrue($"{shape}: {line.Text}");
                            IsInside(outline, line.X + line.Width, y).ShouldBeTrue($"{shape}: {line.Text}");
                        }
                    }
                },
                iter: 2_000
            );
    }

    /// <summary>By the equations of circle and lines; points from the corner of the bounding box.</summary>
    private static bool IsInside(Outline outline, double x, double y)
    {
        const double dust = 0.01;
        var (w, h, c) = (outline.Bounds.Width.Points, outline.Bounds.Height.Points, outline.Corner.Points);
        var r = w / 2;
        var inBox = x >= -dust && y >= -dust && x <= w + dust && y <= h + dust;
        bool InCircle(double centre) => Math.Sqrt(((x - r) * (x - r)) + ((y - centre) * (y - centre))) <= r + dust;
        return inBox
            && outline.Shape switch
            {
                CutShape.Circle => InCircle(r),
                CutShape.HalfCircleHanging => InCircle(0),
                CutShape.HalfCircleStanding => InCircle(h),
                CutShape.Arch => y >= r || InCircle(r),
                CutShape.Tag => x + y >= c - dust && w - x + y >= c - dust,
                _ => true,
            };
    }

    [Fact]
    public void A_composition_that_makes_no_sense_is_refused()
    {
        var shape = new CompositionShape(
            CutShape.Circle,
            AcrossPlace.Centre,
            DownPlace.Middle,
            Length.FromInches(2),
            Length.FromInches(2)
        );
        var made = new Composition(Guid.Empty, "One", new Rgb(255, 255, 255), null, null, [shape]);
        made.Checked(_ => false).ShouldBe(made);
        Refused(made with { Name = " " }).ShouldContain("name");
        Refused(made with { Shapes = [.. Enumerable.Repeat(shape, 9)] }).ShouldContain("8 shapes");
        Refused(made with { Shapes = [shape with { Width = Length.FromInches(1, 8) }] }).ShouldContain("1/4");
        Refused(made with { Shapes = [shape with { StyleKey = "nowhere" }] }).ShouldContain("nowhere");
        Refused(made with { Shapes = [shape with { Mat = new Mat(Length.FromInches(2), default, null) }] })
            .ShouldContain("mat");

        static string Refused(Composition made) => Should.Throw<RuleException>(() => made.Checked(_ => false)).Message;
    }

    [Fact]
    public void A_kept_composition_begins_others_of_every_size_without_its_pictures()
    {
        var cut = Size.FromInches(6, 8);
        var made = CompositionStarts.Make("circle-and-foot", cut, Guid.NewGuid(), [Guid.NewGuid()], "dots");
        var kept = KeptComposition.Of("own-1", cut, made);
        kept.Composition.Photos.ShouldBeEmpty();
        var photo = Guid.NewGuid();
        var same = kept.For(cut, Guid.NewGuid(), [photo]);
        same.Shapes.Select(s => (s.Width, s.Height)).ShouldBe(made.Shapes.Select(s => (s.Width, s.Height)));
        same.Photos.ShouldBe([photo]);
        // On 3x4 everything is half as large, and a circle stays one on a piece of another proportion.
        kept.For(Size.FromInches(3, 4), Guid.NewGuid(), [])
            .Shapes.Select(s => s.Width * 2)
            .ShouldBe(made.Shapes.Select(s => s.Width));
        var wide = kept.For(Size.FromInches(6, 4), Guid.NewGuid(), []);
        wide.Shapes[0].Width.ShouldBe(wide.Shapes[0].Height);
    }
}
