using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Photos;

/// <summary>
/// The part of a picture that is kept, in pixels of the portrait photo; fractions of a pixel are allowed.
/// </summary>
public readonly record struct Crop(double Left, double Top, double Width, double Height)
{
    /// <summary>How far the picture is turned clockwise around the middle of the kept part, in degrees.</summary>
    public double Degrees { get; init; }

    /// <summary>
    /// The crop for a print: the largest part with the print's proportion, divided by the zoom, around the wanted
    /// middle, moved no further than needed to stay inside the picture.
    /// </summary>
    public static Crop For(PixelSize picture, Size print, Framing wanted)
    {
        if (picture.Width <= 0 || picture.Height <= 0 || !print.IsPositive)
        {
            throw new MeasureException("A picture and a pocket without any size cannot be brought together.");
        }

        var framing = wanted.Clamped();
        var proportion = print.Proportion;
        var (width, height) =
            picture.Proportion >= proportion
                ? (picture.Height * proportion, (double)picture.Height)
                : (picture.Width, picture.Width / proportion);
        width /= framing.Zoom;
        height /= framing.Zoom;
        var left = Math.Clamp((framing.CenterX * picture.Width) - (width / 2), 0, Math.Max(0, picture.Width - width));
        var top = Math.Clamp(
            (framing.CenterY * picture.Height) - (height / 2),
            0,
            Math.Max(0, picture.Height - height)
        );
        return new Crop(left, top, width, height);
    }

    /// <summary>
    /// The part that is kept when the picture is turned around the middle of this one: of the same proportion, and as
    /// large as fits into this one, so that no corner is empty. Geometry.
    /// </summary>
    /// <param name="degrees">Clockwise; less than a quarter turn.</param>
    public Crop Turned(double degrees)
    {
        if (degrees == 0 || Width <= 0 || Height <= 0)
        {
            return this;
        }

        var (sine, cosine) = Math.SinCos(Math.Abs(degrees) * Math.PI / 180);
        var share = Math.Min(
            Width / ((Width * cosine) + (Height * sine)),
            Height / ((Width * sine) + (Height * cosine))
        );
        return new Crop(
            Left + (Width * (1 - share) / 2),
            Top + (Height * (1 - share) / 2),
            Width * share,
            Height * share
        )
        {
            Degrees = degrees,
        };
    }

    /// <summary>Crop loss = 1 − kept area / whole area: 0 keeps everything, 0.5 loses half. Arithmetic.</summary>
    public double LossOf(PixelSize picture) =>
        Math.Max(0, 1 - (Width * Height / ((double)picture.Width * picture.Height)));

    /// <summary>
    /// Effective resolution in pixels per inch: min(pixels across / inches across, pixels down / inches down) after
    /// the crop. Arithmetic.
    /// </summary>
    public double PixelsPerInch(Size print) =>
        Math.Min(Width / (double)print.Width.Inches, Height / (double)print.Height.Inches);
}
