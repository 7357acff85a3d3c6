using NetVips;

namespace ZestyPocket.Drawing.Photos;

/// <summary>Brings any picture to opaque 8-bit sRGB.</summary>
internal static class ScreenColour
{
    /// <summary>
    /// By its own profile when it has one for its number of inks, else by its kind of colour; see-through parts become
    /// white.
    /// </summary>
    public static Image Of(Image image)
    {
        using var coloured = Managed(image) ?? image.Colourspace(Enums.Interpretation.Srgb);
        using var flat = coloured.HasAlpha() ? coloured.Flatten(background: [255]) : coloured.Copy();
        return flat.Cast(Enums.BandFormat.Uchar);
    }

    private static Image? Managed(Image image)
    {
        if (!image.Contains("icc-profile-data"))
        {
            return null;
        }

        try
        {
            return image.IccTransform("srgb", embedded: true, intent: Enums.Intent.Relative);
        }
        catch (VipsException)
        {
            // A profile for another kind of colour, or a damaged one: the picture's own numbers are the better guess.
            return null;
        }
    }
}
