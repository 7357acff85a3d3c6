namespace ZestyPocket.Core.Photos;

/// <summary>
/// What a camera is called: its maker and model, and its serial number where the file states one, so that two phones of
/// one model keep clocks of their own.
/// </summary>
public static class CameraName
{
    private const string Between = " · ";

    private const int LongestModel = 80;

    private const int LongestSerial = 24;

    /// <summary>The name; null when the file names no camera. A serial of nothing but zeros is none.</summary>
    public static string? Of(string? make, string? model, string? serial)
    {
        var (maker, kind) = (Clean(make), Clean(model));
        var name =
            maker.Length == 0 || kind.StartsWith(maker, StringComparison.OrdinalIgnoreCase)
                ? kind
                : $"{maker} {kind}".Trim();
        if (name.Length == 0)
        {
            return null;
        }

        name = name.Length > LongestModel ? name[..LongestModel].Trim() : name;
        var number = Clean(serial);
        return number.Trim('0', ' ').Length == 0 || number.Length > LongestSerial ? name : name + Between + number;
    }

    /// <summary>The maker and model of a name: the same for all cameras of that model.</summary>
    public static string ModelOf(string camera)
    {
        ArgumentNullException.ThrowIfNull(camera);
        var at = camera.LastIndexOf(Between, StringComparison.Ordinal);
        return at < 0 ? camera : camera[..at];
    }

    /// <summary>The name for sentences.</summary>
    public static string Words(string camera) =>
        string.IsNullOrEmpty(camera) ? "files without a camera's name" : camera;

    private static string Clean(string? text) =>
        text is null
            ? string.Empty
            : string.Concat(text.Where(c => !char.IsControl(c) && c != '·' && c != '\uFFFD')).Trim();
}
