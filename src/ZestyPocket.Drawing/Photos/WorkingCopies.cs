using System.Globalization;
using System.Text.RegularExpressions;
using ImageMagick;

namespace ZestyPocket.Drawing.Photos;

/// <summary>The file takes longer than it was given: it may be tried again with more time.</summary>
public sealed class PictureTakesLongException(string message) : PictureRefusedException(message)
{
    public PictureTakesLongException(TimeSpan given)
        : this(
            $"The file took longer than {given.TotalSeconds:0} seconds to read and was given up. Save it as a picture "
                + "and add that."
        ) { }
}

/// <summary>
/// Turns kinds of file that the picture library does not decode (HEIC, a page of a PDF) into a JPEG it does. The copy
/// can be thrown away: it is made again from the original.
/// </summary>
public static partial class WorkingCopies
{
    /// <summary>Longest side of a PDF page as a picture, in pixels: 12 x 12 in at 300 ppi and some more.</summary>
    private const int LongestPageSide = 4200;

    /// <summary>How long one step of reading a page may take at first; what takes longer is set aside.</summary>
    public static TimeSpan FirstTime { get; } = TimeSpan.FromSeconds(2);

    /// <summary>How long it may take before it counts as hostile.</summary>
    public static TimeSpan LongestTime { get; } = TimeSpan.FromSeconds(20);

    private const long PageMemory = 2L << 30;

    static WorkingCopies()
    {
        ResourceLimits.Width = 30_000;
        ResourceLimits.Height = 30_000;
        ResourceLimits.Area = PictureIntake.MostPixels;
        ResourceLimits.Memory = 2UL << 30;
        ResourceLimits.Disk = 0;
        ResourceLimits.Thread = 1;
    }

    /// <summary>Writes the working copy; gives how many pages the original has (1 for a photo).</summary>
    public static int Make(string original, PictureFormat format, int page, string target, TimeSpan patience)
    {
        if (format == PictureFormat.Pdf)
        {
            return FromPdf(original, page, target, patience);
        }

        FromHeic(original, target);
        return 1;
    }

    private static void FromHeic(string original, string target)
    {
        try
        {
            var settings = new MagickReadSettings
            {
                Format = MagickFormat.Heic,
                FrameIndex = 0,
                FrameCount = 1,
            };
            var header = new MagickImageInfo(original, settings);
            if ((long)header.Width * header.Height > PictureIntake.MostPixels)
            {
                throw new PictureRefusedException(
                    $"The picture has {header.Width:N0} × {header.Height:N0} pixels; at most "
                        + $"{PictureIntake.MostPixels / 1_000_000:N0} million can be handled."
                );
            }

            using var image = new MagickImage(original, settings);
            // The decoder has turned the picture already, as the file's own box says; EXIF may say otherwise and is not
            // asked.
            var profile = image.GetColorProfile();
            image.Strip();
            if (profile is not null)
            {
                image.SetProfile(profile);
            }

            image.Quality = 95;
            image.Settings.SetDefine(MagickFormat.Jpeg, "sampling-factor", "4:4:4");
            image.Write(target, MagickFormat.Jpeg);
        }
        catch (MagickException broken)
        {
            throw new PictureRefusedException(
                "The HEIC picture is damaged or of a kind that cannot be read. Export it as JPEG and add that.",
                broken
            );
        }
    }

    private static int FromPdf(string original, int page, string target, TimeSpan patience)
    {
        var info = Run("pdfinfo", [original], patience);
        var pages = Pages().Match(info) is { Success: true } found
            ? int.Parse(found.Groups[1].ValueSpan, CultureInfo.InvariantCulture)
            : 0;
        if (pages == 0)
        {
            throw new PictureRefusedException(
                "The PDF has no page that can be read: it is damaged or locked with a password."
            );
        }

        if (page < 1 || page > pages)
        {
            throw new PictureRefusedException(
                $"The PDF has {pages} {(pages == 1 ? "page" : "pages")}; there is no page {page}."
            );
        }

        var size = PageSize()
            .Match(page == 1 ? info : Run("pdfinfo", ["-f", Text(page), "-l", Text(page), original], patience));
        var longest = size.Success
            ? Math.Max(
                double.Parse(size.Groups[1].ValueSpan, CultureInfo.InvariantCulture),
                double.Parse(size.Groups[2].ValueSpan, CultureInfo.InvariantCulture)
            )
            : 792;
        var side = (int)Math.Clamp(Math.Ceiling(longest / 72 * 300), 300, LongestPageSide);
        var stem = target + ".page";
        try
        {
            Run(
                "pdftoppm",
                [
                    "-f",
                    Text(page),
                    "-l",
                    Text(page),
                    "-singlefile",
                    "-scale-to",
                    Text(side),
                    "-jpeg",
                    "-jpegopt",
                    "quality=95",
                    original,
                    stem,
                ],
                patience
            );
            File.Move(stem + ".jpg", target, overwrite: true);
        }
        catch (IOException missing)
        {
            throw new PictureRefusedException(
                "The page of the PDF could not be drawn. Save the page as a picture and add that.",
                missing
            );
        }
        finally
        {
            File.Delete(stem + ".jpg");
        }

        return pages;
    }

    private static string Run(string program, IEnumerable<string> arguments, TimeSpan patience) =>
        ReaderProcess.Run(
            program,
            arguments,
            patience,
            PageMemory,
            "The PDF cannot be read: it is damaged or locked with a password. Save the page as a picture and add that."
        );

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^Pages:\s+([0-9]+)", RegexOptions.Multiline)]
    private static partial Regex Pages();

    [GeneratedRegex(@"^Page\s+(?:[0-9]+ )?size:\s+([0-9.]+) x ([0-9.]+)", RegexOptions.Multiline)]
    private static partial Regex PageSize();
}
