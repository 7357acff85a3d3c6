using NetVips;
using SkiaSharp;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Printing;

/// <summary>Draws the files for a lab.</summary>
public sealed class LabPainter(PiecePainter pieces)
{
    private const int Quality = 94;

    /// <summary>
    /// A JPEG of 300 pixels for each inch of the print, in sRGB with its profile and without any other data than its
    /// resolution. It is drawn smaller by what the lab enlarges, and what lies at its edge goes on beyond, so that
    /// no white is left.
    /// </summary>
    public byte[] Jpeg(LabPrint print, Func<DuePiece, PieceFace> face, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(print);
        ArgumentNullException.ThrowIfNull(face);
        var (width, height) = (print.Paper.Width.Points, print.Paper.Height.Points);
        var png = Raster.Png(width, height, LabPrints.PixelsPerInch, canvas => Draw(canvas, print, face, cancel));
        using var image = Image.NewFromBuffer(png);
        using var flat = image.HasAlpha() ? image.Flatten(background: [255.0, 255, 255]) : image.Copy();
        using var srgb = flat.Copy(
            interpretation: Enums.Interpretation.Srgb,
            xres: LabPrints.PixelsPerInch / 25.4,
            yres: LabPrints.PixelsPerInch / 25.4
        );
        PhotoEngine.Start();
        return srgb.JpegsaveBuffer(
            q: Quality,
            keep: Enums.ForeignKeep.Icc | Enums.ForeignKeep.Exif,
            profile: "srgb",
            subsampleMode: Enums.ForeignSubsample.Off
        );
    }

    private void Draw(SKCanvas canvas, LabPrint print, Func<DuePiece, PieceFace> face, CancellationToken cancel)
    {
        var (width, height) = ((float)print.Paper.Width.Points, (float)print.Paper.Height.Points);
        const float smaller = (float)(1 / LabPrints.Enlargement);
        canvas.Translate(width * (1 - smaller) / 2, height * (1 - smaller) / 2);
        canvas.Scale(smaller);
        using var hair = new SKPaint
        {
            Color = new SKColor(150, 150, 150),
            StrokeWidth = 0.3f,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };
        foreach (var piece in print.Pieces)
        {
            cancel.ThrowIfCancellationRequested();
            var shown = face(piece.Due);
            // A piece that fills the print bleeds into what the lab cuts off.
            if (print.Pieces.Length == 1 && piece.Bounds.Size == print.Paper)
            {
                canvas.Save();
                canvas.Translate(
                    -width * (float)(LabPrints.Enlargement - 1) / 2,
                    -height * (float)(LabPrints.Enlargement - 1) / 2
                );
                canvas.Scale((float)LabPrints.Enlargement);
                DrawPiece(canvas, piece, shown);
                canvas.Restore();
            }

            DrawPiece(canvas, piece, shown);
        }

        foreach (var cut in print.Cuts)
        {
            canvas.DrawLine(
                (float)cut.X1.Points,
                (float)cut.Y1.Points,
                (float)cut.X2.Points,
                (float)cut.Y2.Points,
                hair
            );
        }
    }

    private void DrawPiece(SKCanvas canvas, PlannedPiece piece, PieceFace face)
    {
        canvas.Save();
        canvas.Translate((float)piece.Bounds.X.Points, (float)piece.Bounds.Y.Points);
        SheetPainter.Turn(canvas, piece);
        pieces.Draw(canvas, face, LabPrints.PixelsPerInch);
        canvas.Restore();
    }
}
