using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Drawing.Pages;

/// <summary>One face of a leaf with what lies in its pockets, by pocket key.</summary>
public sealed record PaintedFace(Protector Protector, LeafSide Side, ImmutableDictionary<string, PieceFace> Pieces);

/// <summary>Draws a spread in true proportion: the pages at their outer size, side by side as the album lies open.</summary>
public sealed class SpreadPainter(PiecePainter pieces)
{
    /// <summary>Outer size of the open spread; the taller page decides the height.</summary>
    public static Size SizeOf(IReadOnlyList<PaintedFace> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        return new Size(
            faces.Aggregate(Length.Zero, (sum, f) => sum + f.Protector.Outer.Width),
            faces.Aggregate(Length.Zero, (most, f) => Length.Max(most, f.Protector.Outer.Height)));
    }

    /// <summary>Draws the faces left to right, in points.</summary>
    public void Draw(SKCanvas canvas, IReadOnlyList<PaintedFace> faces, double pixelsPerInch, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(faces);
        canvas.Save();
        foreach (var face in faces)
        {
            cancel.ThrowIfCancellationRequested();
            DrawFace(canvas, face, pixelsPerInch);
            canvas.Translate((float)face.Protector.Outer.Width.Points, 0);
        }

        canvas.Restore();
    }

    private void DrawFace(SKCanvas canvas, PaintedFace face, double pixelsPerInch)
    {
        var protector = face.Protector;
        var (originX, originY) = protector.BodyOrigin(face.Side);
        using var fill = new SKPaint { Color = new SKColor(0xF4, 0xF1, 0xEA), IsAntialias = true };
        canvas.DrawRect(0, 0, (float)protector.Outer.Width.Points, (float)protector.Outer.Height.Points, fill);
        using var seam = new SKPaint { Color = new SKColor(0xC9, 0xC4, 0xB8), Style = SKPaintStyle.Stroke, StrokeWidth = 0.75f, IsAntialias = true };
        foreach (var pocket in protector.Design.Face(face.Side))
        {
            var bounds = pocket.Bounds.Moved(originX, originY);
            if (face.Pieces.TryGetValue(pocket.Key, out var piece))
            {
                var at = bounds.Centred(piece.Cut);
                canvas.Save();
                canvas.Translate((float)at.X.Points, (float)at.Y.Points);
                pieces.Draw(canvas, piece, pixelsPerInch);
                canvas.Restore();
            }

            canvas.DrawRect((float)bounds.X.Points, (float)bounds.Y.Points, (float)bounds.Width.Points, (float)bounds.Height.Points, seam);
        }

        canvas.DrawRect(0, 0, (float)protector.Outer.Width.Points, (float)protector.Outer.Height.Points, seam);
    }
}
