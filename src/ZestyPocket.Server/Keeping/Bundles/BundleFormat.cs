using NodaTime;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>An album in a bundle.</summary>
/// <param name="Pages">Faces of its leaves; null when an earlier version wrote the bundle.</param>
/// <param name="Pieces">Pieces in its pockets; null when an earlier version wrote the bundle.</param>
public sealed record BundleAlbum(Guid Id, string Name, int? Pages = null, int? Pieces = null);

/// <summary>The first file of a bundle: what it is.</summary>
/// <param name="Format">Always <see cref="BundleFormat.Name"/>.</param>
/// <param name="Version">Of the bundle's own layout.</param>
/// <param name="Schema">The last migration of the database that it was written from.</param>
/// <param name="Originals">How many originals follow.</param>
public sealed record BundleAbout(
    string Format,
    int Version,
    string Schema,
    Instant MadeAt,
    IReadOnlyList<BundleAlbum> Albums,
    int Originals
);

/// <summary>A table of a bundle.</summary>
/// <param name="Name">Of the table and, with <c>.jsonl</c>, of its file.</param>
/// <param name="Where">Which rows belong to the albums <c>@albums</c>.</param>
/// <param name="OrderBy">So that the same album gives the same bundle.</param>
/// <param name="Row">A row as JSON.</param>
public sealed record BundleTable(string Name, string Where, string OrderBy, string Row = "to_jsonb(t)")
{
    /// <summary>It belongs to the keeper, not to an album: what the keeper has already stays as it is.</summary>
    public bool OfKeeper => Where.StartsWith(BundleFormat.OfKeeper, StringComparison.Ordinal);

    /// <summary>The column with the key of a row.</summary>
    public string Key => Name is "PrintedPieces" or "PieceTicks" ? "PieceId" : "Id";

    public string File => $"tables/{Name}.jsonl";
}

/// <summary>
/// A bundle is a zip: what it is, tables as JSON lines, originals under the hash of their content, and a manifest that
/// <c>sha256sum -c</c> can check. See docs/formats.md.
/// </summary>
public static class BundleFormat
{
    public const string Name = "zesty-pocket-bundle";

    public const int Version = 1;

    public const string About = "bundle.json";

    public const string Manifest = "manifest.sha256";

    public const string Originals = "originals/";

    internal const string OfKeeper =
        "\"KeeperId\" IN (SELECT \"KeeperId\" FROM \"Albums\" WHERE \"Id\" = ANY(@albums))";

    /// <summary>Who wrote it, since accounts do not go along.</summary>
    private const string WithAuthor =
        "to_jsonb(t) || jsonb_build_object('Author', "
        + "(SELECT k.\"Name\" FROM \"Keepers\" k WHERE k.\"Id\" = t.\"KeeperId\"))";

    private const string OfAlbum = "\"AlbumId\" = ANY(@albums)";

    /// <summary>In the order in which rows can be put back: what is referred to comes first.</summary>
    public static IReadOnlyList<BundleTable> Tables { get; } =
    [
        new("Designs", OfKeeper, "\"MadeAt\", \"Id\""),
        new("StashItems", OfKeeper, "\"MadeAt\", \"Id\""),
        new("Albums", "\"Id\" = ANY(@albums)", "\"MadeAt\", \"Id\""),
        new("Protectors", OfAlbum, "\"AlbumId\", \"Ordinal\", \"Id\""),
        new("Units", OfAlbum, "\"AlbumId\", \"Ordinal\", \"Id\""),
        new("Leaves", OfAlbum, "\"AlbumId\", \"Ordinal\", \"Id\""),
        new("Photos", OfAlbum, "\"AlbumId\", \"SortAt\", \"Id\""),
        new("Videos", OfAlbum, "\"AlbumId\", \"AddedAt\", \"Id\""),
        new("Stories", OfAlbum, "\"AlbumId\", \"Ordinal\", \"Id\""),
        new("PrintedPieces", OfAlbum, "\"AlbumId\", \"PieceId\""),
        new("PieceTicks", OfAlbum, "\"AlbumId\", \"PieceId\""),
        new("Comments", OfAlbum, "\"AlbumId\", \"MadeAt\", \"Id\"", WithAuthor),
        new("Edits", OfAlbum, "\"Sequence\""),
        new("EditChange", "\"EditId\" IN (SELECT \"Id\" FROM \"Edits\" WHERE \"AlbumId\" = ANY(@albums))", "\"Id\""),
    ];
}
