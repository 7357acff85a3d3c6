using System.Collections.Immutable;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Drawing.Pages;

/// <summary>One face of a leaf with what lies in its pockets, by pocket key.</summary>
/// <param name="Protector">The leaf's protector with its alterations.</param>
/// <param name="Side">Which face.</param>
/// <param name="Pieces">What lies in its pockets.</param>
/// <param name="Alterations">What was done to the leaf.</param>
public sealed record PaintedFace(
    Protector Protector,
    LeafSide Side,
    ImmutableDictionary<string, PieceFace> Pieces,
    LeafAlterations Alterations
);

/// <summary>
/// Draws a spread in true proportion: the pages at their outer size, side by side as the album lies open.
/// </summary>
public sealed class SpreadPainter(PiecePainter pieces)
{
    /// <summary>Outer size of the open spread; the taller page decides the height.</summary>
    public static Size SizeOf(IReadOnlyList<PaintedFace> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        return new Size(
            faces.Aggregate(Length.Zero, (sum, f) => sum + f.Protector.Outer.Width),
            faces.Aggregate(Length.Zero, (most, f) => Length.Max(most, f.Protector.Outer.Height))
        );
    }

    /// <summary>Draws the faces left to right, in points.</summary>
    public void Draw(
        SKCanvas canvas,
        IReadOnlyList<PaintedFace> faces,
        double pixelsPerInch,
        CancellationToken cancel = default
    )
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
        using var seam = new SKPaint
        {
            Color = new SKColor(0xC9, 0xC4, 0xB8),
            Style = SKPaintStyle.Stroke,
            StrokeWidth = 0.75f,
            IsAntialias = true,
        };
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

            canvas.DrawRect(
                (float)bounds.X.Points,
                (float)bounds.Y.Points,
                (float)bounds.Width.Points,
                (float)bounds.Height.Points,
                seam
            );
        }

        canvas.DrawRect(0, 0, (float)protector.Outer.Width.Points, (float)protector.Outer.Height.Points, seam);
        using var hole = new SKPaint
        {
            Color = new SKColor(0x9A, 0x95, 0x89),
            Style = SKPaintStyle.Stroke,
            StrokeWidth = 0.75f,
            IsAntialias = true,
        };
        foreach (var (x, y) in protector.HolesOn(face.Side))
        {
            canvas.DrawCircle((float)x.Points, (float)y.Points, (float)protector.Form.Holes!.Diameter.Points / 2, hole);
        }

        using var dashes = SKPathEffect.CreateDash([6, 4], 0);
        using var mark = new SKPaint
        {
            Color = new SKColor(0x6B, 0x4A, 0x2B),
            Style = SKPaintStyle.Stroke,
            StrokeWidth = 1,
            PathEffect = dashes,
            IsAntialias = true,
        };
        foreach (var line in protector.MarksOn(face.Side, face.Alterations))
        {
            canvas.DrawLine(
                (float)line.X1.Points,
                (float)line.Y1.Points,
                (float)line.X2.Points,
                (float)line.Y2.Points,
                mark
            );
        }
    }
}
