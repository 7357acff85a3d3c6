using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>
/// Reads the day that folders are named for: one folder a day (<c>2026-05-04 Picnic</c>), or one for each year, month
/// and day inside one another (<c>2026/05/04</c>). The innermost that tells a day counts. Common practice.
/// </summary>
public static partial class FolderDate
{
    /// <param name="path">Of a file, with slashes of either kind; null when no folder tells a day.</param>
    public static LocalDate? Read(string path)
    {
        ArgumentNullException.ThrowIfNull(path);
        var folders = path.Split('/', '\\')[..^1];
        for (var i = folders.Length - 1; i >= 0; i--)
        {
            if (FileNameDate.Read(folders[i])?.Day is { } named)
            {
                return named;
            }

            if (
                i >= 2
                && Number(Year(), folders[i - 2]) is { } year
                && Number(Part(), folders[i - 1]) is { } month
                && Number(Part(), folders[i]) is { } day
                && month is >= 1 and <= 12
                && day >= 1
                && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            )
            {
                return new LocalDate(year, month, day);
            }
        }

        return null;
    }

    private static int? Number(Regex pattern, string folder) =>
        pattern.Match(folder) is { Success: true } match
            ? int.Parse(match.Groups[1].ValueSpan, CultureInfo.InvariantCulture)
            : null;

    [GeneratedRegex(@"^((?:19|20)[0-9]{2})(?![0-9])", RegexOptions.CultureInvariant)]
    private static partial Regex Year();

    [GeneratedRegex(@"^([0-9]{1,2})(?![0-9])", RegexOptions.CultureInvariant)]
    private static partial Regex Part();
}
