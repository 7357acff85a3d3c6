using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing;

/// <summary>The single painter of pieces: screen preview, sheet and page draw with these calls.</summary>
public sealed class PiecePainter(FontShelf fonts, IPrintCrops crops)
{
    /// <summary>
    /// Draws a piece with its top left corner at the origin, in points.
    /// <paramref name="pixelsPerInch"/> bounds the pixels taken from a photo: 300 for print, less for a preview.
    /// </summary>
    public void Draw(SKCanvas canvas, PieceFace piece, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        switch (piece)
        {
            case PhotoFace photo:
                DrawPhoto(canvas, photo, pixelsPerInch);
                break;
            case SquaredFace squared:
                DrawJpeg(canvas, crops.Squared(squared, pixelsPerInch), squared.Cut);
                break;
            case CardPieceFace card:
                DrawCard(canvas, card, pixelsPerInch);
                break;
            case FinishedFace finished:
                DrawFinished(canvas, finished, pixelsPerInch);
                break;
            case CollageFace collage:
                DrawCollage(canvas, collage, pixelsPerInch);
                break;
            default:
                throw new ArgumentException("Unknown kind of piece.", nameof(piece));
        }
    }

    private void DrawFinished(SKCanvas canvas, FinishedFace finished, double pixelsPerInch)
    {
        foreach (var part in finished.Parts)
        {
            canvas.Save();
            Clip(canvas, part.Outline);
            using var ground = new SKPaint { Color = Colour(part.Ground) };
            canvas.DrawRect(BoundsOf(part.Outline), ground);
            foreach (var (bounds, face, clip) in part.On)
            {
                canvas.Save();
                Clip(canvas, clip);
                canvas.Translate((float)bounds.X.Points, (float)bounds.Y.Points);
                Draw(canvas, face, pixelsPerInch);
                canvas.Restore();
            }

            canvas.Restore();
        }
    }

    private static void Clip(SKCanvas canvas, Outline outline)
    {
        if (outline.IsPlain)
        {
            canvas.ClipRect(BoundsOf(outline));
            return;
        }

        using var path = SKPath.ParseSvgPathData(outline.Path());
        canvas.ClipPath(path, antialias: true);
    }

    private static SKRect BoundsOf(Outline outline) =>
        SKRect.Create(
            (float)outline.Bounds.X.Points,
            (float)outline.Bounds.Y.Points,
            (float)outline.Bounds.Width.Points,
            (float)outline.Bounds.Height.Points
        );

    private void DrawPhoto(SKCanvas canvas, PhotoFace photo, double pixelsPerInch)
    {
        DrawJpeg(canvas, crops.Jpeg(photo, pixelsPerInch), photo.Cut);
        if (photo.Runs.IsEmpty && photo.Discs.IsEmpty)
        {
            return;
        }

        canvas.Save();
        canvas.ClipRect(new SKRect(0, 0, (float)photo.Cut.Width.Points, (float)photo.Cut.Height.Points));
        using var paint = new SKPaint { IsAntialias = true };
        DrawBoxes(canvas, photo.Boxes, paint);
        DrawDiscs(canvas, photo.Discs, paint);
        foreach (var run in photo.Runs)
        {
            fonts.Draw(canvas, run);
        }

        canvas.Restore();
    }

    private static void DrawJpeg(SKCanvas canvas, byte[] jpeg, Size cut)
    {
        using var data = SKData.CreateCopy(jpeg);
        using var image = SKImage.FromEncodedData(data);
        canvas.Save();
        // Scale by matrix and draw whole: only so does the JPEG pass into the PDF untouched.
        canvas.Scale((float)(cut.Width.Points / image.Width), (float)(cut.Height.Points / image.Height));
        canvas.DrawImage(image, 0, 0, new SKSamplingOptions(SKCubicResampler.Mitchell));
        canvas.Restore();
    }

    private void DrawCollage(SKCanvas canvas, CollageFace collage, double pixelsPerInch)
    {
        using var ground = new SKPaint { Color = Colour(collage.Ground), IsAntialias = true };
        canvas.DrawRect(0, 0, (float)collage.Cut.Width.Points, (float)collage.Cut.Height.Points, ground);
        foreach (var (bounds, face) in collage.Cells)
        {
            canvas.Save();
            canvas.Translate((float)bounds.X.Points, (float)bounds.Y.Points);
            Draw(canvas, face, pixelsPerInch);
            canvas.Restore();
        }
    }

    private void DrawCard(SKCanvas canvas, CardPieceFace piece, double pixelsPerInch)
    {
        var card = piece.Card;
        canvas.Save();
        var bounds = new SKRect(0, 0, (float)card.Width, (float)card.Height);
        using var corners = new SKRoundRect(bounds, (float)card.Corner);
        if (card.Corner > 0)
        {
            canvas.ClipRoundRect(corners, antialias: true);
        }
        else
        {
            canvas.ClipRect(bounds);
        }

        using var paint = new SKPaint { IsAntialias = true };
        if (piece.GroundShare > 0)
        {
            paint.Color = Colour(card.Paper).WithAlpha((byte)Math.Round(255 * Math.Min(1, piece.GroundShare)));
            canvas.DrawRect(0, 0, (float)card.Width, (float)card.Height, paint);
        }

        DrawShapes(canvas, card.Shapes, paint);
        foreach (var numeral in card.Numerals)
        {
            fonts.Draw(canvas, numeral);
        }

        DrawBoxes(canvas, card.Boxes, paint);
        DrawBorder(canvas, card, corners, paint);
        DrawDiscs(canvas, card.Discs, paint);
        paint.Style = SKPaintStyle.Stroke;
        foreach (var rule in card.Rules)
        {
            paint.Color = Colour(rule.Ink);
            paint.StrokeWidth = (float)rule.Thickness;
            canvas.DrawLine((float)rule.X1, (float)rule.Y1, (float)rule.X2, (float)rule.Y2, paint);
        }

        if (piece.Picture is { } picture && card.Opening is { } opening)
        {
            DrawAt(opening, picture);
        }

        foreach (var (at, small) in piece.SmallPictures)
        {
            DrawAt(at, small);
        }

        foreach (var run in card.Runs)
        {
            fonts.Draw(canvas, run);
        }

        canvas.Restore();

        void DrawAt(CardOpening at, PhotoFace shown)
        {
            canvas.Save();
            canvas.Translate((float)at.X, (float)at.Y);
            DrawPhoto(canvas, shown, pixelsPerInch);
            canvas.Restore();
        }
    }

    /// <summary>
    /// Between two outlines with one middle for their corners, so that the border is as wide there as at the sides.
    /// </summary>
    private static void DrawBorder(SKCanvas canvas, Core.Words.CardFace card, SKRoundRect outer, SKPaint paint)
    {
        if (card.Border is not { Thickness: > 0 } border)
        {
            return;
        }

        var thick = (float)border.Thickness;
        var inside = new SKRect(
            thick,
            thick,
            Math.Max(thick, (float)card.Width - thick),
            Math.Max(thick, (float)card.Height - thick)
        );
        using var inner = new SKRoundRect(inside, Math.Max(0, (float)card.Corner - thick));
        paint.Color = Colour(border.Ink);
        canvas.DrawRoundRectDifference(outer, inner, paint);
    }

    private static void DrawShapes(SKCanvas canvas, IEnumerable<InkShape> shapes, SKPaint paint)
    {
        foreach (var shape in shapes)
        {
            using var path = SKPath.ParseSvgPathData(shape.Path);
            canvas.Save();
            canvas.Translate((float)shape.X, (float)shape.Y);
            canvas.Scale((float)shape.Scale);
            paint.Color = Colour(shape.Ink);
            paint.Style = shape.Thickness > 0 ? SKPaintStyle.Stroke : SKPaintStyle.Fill;
            // The canvas is scaled; the thickness is meant in points.
            paint.StrokeWidth = (float)(shape.Thickness / shape.Scale);
            paint.StrokeCap = shape.RoundEnds ? SKStrokeCap.Round : SKStrokeCap.Butt;
            paint.StrokeJoin = shape.RoundEnds ? SKStrokeJoin.Round : SKStrokeJoin.Miter;
            canvas.DrawPath(path, paint);
            canvas.Restore();
        }

        paint.StrokeCap = SKStrokeCap.Butt;
        paint.StrokeJoin = SKStrokeJoin.Miter;
        paint.Style = SKPaintStyle.Fill;
    }

    private static void DrawDiscs(SKCanvas canvas, IEnumerable<InkDisc> discs, SKPaint paint)
    {
        foreach (var disc in discs)
        {
            paint.Color = Colour(disc.Ink);
            paint.Style = disc.Thickness > 0 ? SKPaintStyle.Stroke : SKPaintStyle.Fill;
            paint.StrokeWidth = (float)disc.Thickness;
            canvas.DrawCircle((float)disc.X, (float)disc.Y, (float)disc.Radius, paint);
        }

        paint.Style = SKPaintStyle.Fill;
    }

    private static void DrawBoxes(SKCanvas canvas, IEnumerable<InkBox> boxes, SKPaint paint)
    {
        foreach (var box in boxes)
        {
            paint.Color = Colour(box.Ink);
            canvas.DrawRect((float)box.X, (float)box.Y, (float)box.Width, (float)box.Height, paint);
        }
    }

    private static SKColor Colour(Rgb c) => new(c.R, c.G, c.B);
}
