namespace ZestyPocket.Server.Hosting;

/// <summary>Which addresses of the API are about an album or something in one.</summary>
public static class AlbumAddresses
{
    /// <summary>What stands first in such an address.</summary>
    public static IReadOnlySet<string> Kinds { get; } =
        new HashSet<string>
        {
            "albums",
            "units",
            "photos",
            "videos",
            "edits",
            "imports",
            "print-jobs",
            "lab-orders",
            "books",
            "page-searches",
            "stretch-placings",
        };

    /// <summary>Whether an address such as <c>/api/units/{id}</c> names one.</summary>
    public static bool IsAboutAnAlbum(string? pattern) =>
        pattern?.Trim('/').Split('/') is [_, var kind, ['{', ..], ..] && Kinds.Contains(kind);
}
