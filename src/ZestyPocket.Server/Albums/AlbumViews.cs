using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Server.Albums;

/// <summary>A size in EMU with its words.</summary>
public sealed record SizeView(long Width, long Height, string Label)
{
    public static SizeView Of(Size size, MeasureSystem system) => new(size.Width.Emu, size.Height.Emu, MeasureText.Show(size, system));
}

public sealed record AlbumSummary(Guid Id, string Name, LocalDate FirstDay, string Span, int Weeks, int Photos, string Body, bool IsDemo);

public sealed record AlbumView(
    Guid Id,
    string Name,
    LocalDate FirstDay,
    MeasureSystem Measures,
    SizeView Body,
    IReadOnlyList<ProtectorView> Protectors,
    IReadOnlyList<UnitSummary> Units,
    int PhotosWithoutUnit);

/// <summary>A protector of the album with what was measured, exactly as it can be written back.</summary>
public sealed record ProtectorView(
    Guid Id, string DesignKey, string DesignName, string Outer, string RingStrip, string Ease, IReadOnlyList<ClearSizeView> ClearSizes);

/// <summary>One pocket size of a protector: its clear size if measured, and what pieces for it are cut to.</summary>
public sealed record ClearSizeView(string Nominal, string? Clear, string Cut);

/// <summary>One tick of the tape.</summary>
public sealed record UnitSummary(
    Guid Id,
    int Number,
    int Year,
    string Label,
    LocalDate FirstDay,
    LocalDate LastDay,
    int Photos,
    int CardsTold,
    int PiecesPlaced,
    int Pockets);

public sealed record MakeAlbumRequest(
    string Name, LocalDate FirstDay, int Weeks, IReadOnlyList<string> DesignKeys, MeasureSystem Measures);

public sealed record RenameAlbumRequest(string Name);

public sealed record MeasureProtectorRequest(string Outer, string RingStrip, string Ease, IReadOnlyList<MeasuredPocket> Pockets);

/// <summary>A pocket size and its measured clear size, both as written; an empty clear size means not measured.</summary>
public sealed record MeasuredPocket(string Nominal, string Clear);

public sealed record AddWeeksRequest(int Weeks);
