namespace ZestyPocket.Core.Photos;

/// <summary>How a print of a given effective resolution will look.</summary>
public enum ResolutionGrade
{
    /// <summary>300 ppi and above.</summary>
    Good,

    /// <summary>200 to 299 ppi.</summary>
    Fair,

    /// <summary>150 to 199 ppi: warn.</summary>
    Poor,

    /// <summary>Under 150 ppi: ask first.</summary>
    AskFirst,
}

/// <summary>
/// The grades of effective resolution, common practice. Why 300: one minute of arc at 30 cm is 0.0873 mm, 291 to the
/// inch (arithmetic from the eye's one-minute limit, quoted from memory).
/// </summary>
public static class Resolution
{
    /// <summary>What a good print has, and the most that is sent to one.</summary>
    public const int PrintPixelsPerInch = 300;

    /// <summary>Under this a warning.</summary>
    public const int FairPixelsPerInch = 200;

    /// <summary>Under this the keeper is asked first.</summary>
    public const int PoorPixelsPerInch = 150;

    public static ResolutionGrade Grade(double pixelsPerInch) =>
        pixelsPerInch switch
        {
            // Rounded as it is shown, so that the number and its grade never disagree on the screen.
            _ when Math.Round(pixelsPerInch) >= PrintPixelsPerInch => ResolutionGrade.Good,
            _ when Math.Round(pixelsPerInch) >= FairPixelsPerInch => ResolutionGrade.Fair,
            _ when Math.Round(pixelsPerInch) >= PoorPixelsPerInch => ResolutionGrade.Poor,
            _ => ResolutionGrade.AskFirst,
        };
}
