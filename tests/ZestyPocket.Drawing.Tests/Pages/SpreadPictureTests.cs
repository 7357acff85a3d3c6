using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Pages;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Pages;

/// <summary>
/// Pages and collages as they are drawn, looked at pixel by pixel. The test pictures grow redder to the right and
/// greener downwards, so a pixel tells which part of the picture it shows.
/// </summary>
public sealed class SpreadPictureTests : IDisposable
{
    private const int Ppi = 100;
    private readonly TestPictures _pictures = new();
    private readonly FontShelf _fonts = new();

    public void Dispose()
    {
        _pictures.Dispose();
        _fonts.Dispose();
    }

    private PiecePainter Painter => new(_fonts, _pictures);

    private static SKBitmap Paint(Size size, Action<SKCanvas> draw) =>
        SKBitmap.Decode(Raster.Png(size.Width.Points, size.Height.Points, Ppi, draw));

    private static int At(decimal inches) => (int)(inches * Ppi);

    [Fact]
    public void A_collage_has_its_ground_between_the_cells_and_pictures_to_its_edges()
    {
        var print = Size.FromInches(4, 4);
        var gutter = Length.FromInches(1, 4);
        var path = _pictures.Jpeg("square.jpg", 800, 800);
        var cells = Collage.CellsOf("2x2 | 2x2 / 4x2", print, gutter);
        var face = new CollageFace(
            print,
            [.. cells.Select(c => (c.Bounds, (PieceFace)_pictures.Face(path, new PixelSize(800, 800), c.Bounds.Size)))],
            Rgb.Read("#0000ff")
        );
        using var bitmap = Paint(print, canvas => Painter.Draw(canvas, face, Ppi));

        Rgb.Read("#0000ff").ShouldBe(Colour(bitmap, 2m, 1m), "the gutter from top to bottom");
        Rgb.Read("#0000ff").ShouldBe(Colour(bitmap, 1m, 2m), "the gutter from side to side");
        bitmap.GetPixel(1, 1).Blue.ShouldBeInRange((byte)60, (byte)140, "the picture reaches the corner");
        bitmap.GetPixel(At(3.97m), At(3.97m)).Blue.ShouldBeInRange((byte)60, (byte)140);
        // Each cell shows its whole picture: red grows from its left edge to its right one.
        bitmap.GetPixel(At(0.05m), At(0.5m)).Red.ShouldBeLessThan((byte)30);
        bitmap.GetPixel(At(1.8m), At(0.5m)).Red.ShouldBeGreaterThan((byte)220);
        bitmap.GetPixel(At(2.2m), At(0.5m)).Red.ShouldBeLessThan((byte)30);
    }

    [Fact]
    public void A_picture_over_two_pockets_skips_what_lies_under_the_seam()
    {
        // Clear sizes of 5 in across in pockets of 6: a strip of 1 in between the prints is not shown.
        var protector = Protector.Unmeasured(PageDesign.FromNotation("two", "Two", "6x4 | 6x4"));
        protector = protector with
        {
            Ease = Length.Zero,
            ClearSizes = protector.ClearSizes.Add(Size.FromInches(6, 4), Size.FromInches(5, 4)),
        };
        var pixels = new PixelSize(1100, 400);
        var path = _pictures.Jpeg("wide.jpg", 1100, 400);
        var (whole, slices) = Spans.Of(protector, LeafSide.Front, ["1.1", "1.2"]);
        var crop = Crop.For(pixels, whole, Framing.Middle);
        var pieces = slices.ToImmutableDictionary(
            s => s.Key,
            s =>
                (PieceFace)(
                    _pictures.Face(path, pixels, s.Value.Size) with
                    {
                        Crop = Spans.SliceOf(crop, whole, s.Value),
                    }
                )
        );
        using var bitmap = Paint(
            protector.Outer,
            canvas =>
                new SpreadPainter(Painter).Draw(
                    canvas,
                    [new PaintedFace(protector, LeafSide.Front, pieces, LeafAlterations.Plain)],
                    Ppi
                )
        );

        var (x, y) = protector.BodyOrigin(LeafSide.Front);
        byte Red(decimal fromLeftOfPicture) =>
            bitmap.GetPixel(At(x.Inches + 0.5m + fromLeftOfPicture), At(y.Inches + 2)).Red;
        // Eleven inches of picture: red is 255 · inches / 11 wherever the picture is to be seen.
        foreach (var at in new[] { 0.5m, 2.5m, 4.8m, 6.2m, 8m, 10.5m })
        {
            ((double)Red(at)).ShouldBe((double)(255 * at / 11), 6, $"{at} in from the left");
        }

        // Between the two prints lies the protector, not the picture.
        Colour(bitmap, x.Inches + 6.2m, y.Inches + 2).ShouldBe(Rgb.Read("#f4f1ea"));
    }

    [Fact]
    public void Holes_added_seams_and_folds_are_drawn_where_they_are()
    {
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("6x8-two-6x4")!);
        protector = protector with { Form = protector.Form with { Holes = HolePattern.TwoHoles } };
        var alterations = LeafAlterations.Plain.With(Alterations.InHalf(protector.Design.Pockets[0]));
        var altered = protector.Altered(alterations);
        using var plain = Paint(
            protector.Outer,
            canvas => Draw(canvas, protector, LeafSide.Front, LeafAlterations.Plain)
        );
        using var seamed = Paint(protector.Outer, canvas => Draw(canvas, altered, LeafSide.Front, alterations));
        var mark = altered.MarksOn(LeafSide.Front, alterations).Single();
        Different(plain, seamed, mark.X1, mark.Y1, mark.X2, mark.Y2).ShouldBeGreaterThan(0.5);

        var hole = protector.HolesOn(LeafSide.Front)[0];
        var edge = hole.X + (HolePattern.TwoHoles.Diameter / 2);
        Colour(plain, edge.Inches, hole.Y.Inches).ShouldNotBe(Rgb.Read("#f4f1ea"), "the rim of a hole");

        var foldOut = Protector.FoldOut(
            "fold",
            Size.FromInches(6, 8),
            Length.FromInches(3.5m),
            Protector.DefaultRingStrip
        );
        using var folded = Paint(foldOut.Outer, canvas => Draw(canvas, foldOut, LeafSide.Front, LeafAlterations.Plain));
        using var sheet = Paint(
            foldOut.Outer,
            canvas =>
                Draw(
                    canvas,
                    Protector.Sheet("sheet", foldOut.Outer, Protector.DefaultRingStrip),
                    LeafSide.Front,
                    LeafAlterations.Plain
                )
        );
        var fold = foldOut.MarksOn(LeafSide.Front, LeafAlterations.Plain).Single();
        Different(sheet, folded, fold.X1, fold.Y1, fold.X2, fold.Y2).ShouldBeGreaterThan(0.4);
    }

    private void Draw(SKCanvas canvas, Protector protector, LeafSide side, LeafAlterations alterations) =>
        new SpreadPainter(Painter).Draw(
            canvas,
            [new PaintedFace(protector, side, ImmutableDictionary<string, PieceFace>.Empty, alterations)],
            Ppi
        );

    /// <summary>The share of points along a line at which two pictures differ within a pixel of it.</summary>
    private static double Different(SKBitmap one, SKBitmap two, Length x1, Length y1, Length x2, Length y2)
    {
        var points = Enumerable
            .Range(5, 90)
            .Select(i =>
                (X: At(x1.Inches + ((x2 - x1).Inches * i / 100)), Y: At(y1.Inches + ((y2 - y1).Inches * i / 100)))
            )
            .ToList();
        return points.Count(p =>
                Enumerable.Range(-1, 3).Any(d => one.GetPixel(p.X + d, p.Y) != two.GetPixel(p.X + d, p.Y))
            ) / (double)points.Count;
    }

    private static Rgb Colour(SKBitmap bitmap, decimal x, decimal y)
    {
        var pixel = bitmap.GetPixel(At(x), At(y));
        return new Rgb(pixel.Red, pixel.Green, pixel.Blue);
    }
}
