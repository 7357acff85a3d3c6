using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

public sealed record PrintRequest(
    string RequestKey,
    IReadOnlyList<Guid> UnitIds,
    string PaperKey,
    string Margin,
    string Gap,
    bool DespiteDoubts = false,
    PrintChoice Choice = PrintChoice.All,
    IReadOnlyList<Guid>? PieceIds = null,
    Guid? PrinterId = null,
    PrintOptions? Options = null
)
{
    public WantedPieces Wanted => new(Choice, [.. PieceIds ?? []]);

    public SetupAsked Asked => new(PaperKey, Margin, Gap, PrinterId, (Options ?? PrintOptions.Usual).Read());
}

/// <summary>What the keeper wishes of the sheets; lengths as they are written, such as <c>3 mm</c>.</summary>
/// <param name="UnitPerSheet">Pieces of one week or day share no sheet with those of another.</param>
/// <param name="NumbersOnBack">A second pass prints the number of every piece on its back.</param>
/// <param name="Bleed">How far a piece is printed beyond its cut edge.</param>
/// <param name="CropMarks">Marks at corners instead of cut lines.</param>
/// <param name="SafeEdge">How far a back keeps from the edges of its front.</param>
/// <param name="Tiles">What is larger than the paper is printed in parts.</param>
/// <param name="UseLeftovers">Starts on what is left of other prints.</param>
/// <param name="Copies">How many of each piece.</param>
/// <param name="Only">Only what is printed on this stock.</param>
public sealed record PrintOptions(
    bool UnitPerSheet = false,
    bool NumbersOnBack = false,
    string? Bleed = null,
    bool CropMarks = false,
    string? SafeEdge = null,
    bool Tiles = false,
    bool UseLeftovers = true,
    int Copies = 1,
    Stock? Only = null
)
{
    public static PrintOptions Usual { get; } = new();

    public SheetOptions Read() =>
        new()
        {
            UnitPerSheet = UnitPerSheet,
            NumbersOnBack = NumbersOnBack,
            Bleed = MeasureText.ParseLengthOrNone(Bleed ?? "0"),
            CropMarks = CropMarks,
            SafeEdge = MeasureText.ParseLengthOrNone(SafeEdge ?? "0"),
            Tiles = Tiles,
            UseLeftovers = UseLeftovers,
            Copies = Copies,
            Only = Only,
        };
}

/// <summary>Paper and printer as the keeper wrote them.</summary>
public sealed record SetupAsked(string PaperKey, string Margin, string Gap, Guid? PrinterId, SheetOptions Options);

/// <summary>A sheet of a plan, asked for by itself.</summary>
public sealed record SheetQuery
{
    [FromQuery]
    public string? Paper { get; init; }

    [FromQuery]
    public string? Margin { get; init; }

    [FromQuery]
    public string? Gap { get; init; }

    [FromQuery]
    public string? Choice { get; init; }

    [FromQuery]
    public Guid[]? Piece { get; init; }

    [FromQuery]
    public Guid? Printer { get; init; }

    [FromQuery]
    public bool? UnitPerSheet { get; init; }

    [FromQuery]
    public bool? NumbersOnBack { get; init; }

    [FromQuery]
    public string? Bleed { get; init; }

    [FromQuery]
    public bool? CropMarks { get; init; }

    [FromQuery]
    public string? SafeEdge { get; init; }

    [FromQuery]
    public bool? Tiles { get; init; }

    [FromQuery]
    public bool? UseLeftovers { get; init; }

    [FromQuery]
    public int? Copies { get; init; }

    [FromQuery]
    public string? Only { get; init; }

    public WantedPieces Wanted =>
        new(Enum.TryParse<PrintChoice>(Choice, ignoreCase: true, out var named) ? named : PrintChoice.All, Piece ?? []);

    public SetupAsked Asked =>
        new(
            Paper ?? "",
            Margin ?? "",
            Gap ?? "",
            Printer,
            new PrintOptions(
                UnitPerSheet ?? false,
                NumbersOnBack ?? false,
                Bleed,
                CropMarks ?? false,
                SafeEdge,
                Tiles ?? false,
                UseLeftovers ?? true,
                Copies ?? 1,
                Enum.TryParse<Stock>(Only, ignoreCase: true, out var only) ? only : null
            ).Read()
        );
}

/// <summary>The sheets before they are printed.</summary>
/// <param name="Pieces">How many pieces.</param>
/// <param name="Sheets">What lies on each.</param>
/// <param name="TooLarge">Pieces that have a page of their own.</param>
/// <param name="Words">The sum in words.</param>
/// <param name="ByHand">What is done to its pieces by hand, in their order.</param>
/// <param name="Cautions">For the tools that takes; the makers' instructions come first.</param>
/// <param name="IsProved">No other sheets for these pieces cost less.</param>
/// <param name="Savings">When they would take fewer sheets otherwise.</param>
/// <param name="Standing">How every placed piece stands to what was printed of it.</param>
/// <param name="Doubts">What would not come out as it should: the keeper is asked before it is printed.</param>
public sealed record PrintPlanView(
    int Pieces,
    IReadOnlyList<SheetView> Sheets,
    IReadOnlyList<string> TooLarge,
    string Words,
    IReadOnlyList<string> Doubts,
    IReadOnlyList<HandWork> ByHand,
    IReadOnlyList<string> Cautions,
    IReadOnlyList<PieceStanding> Standing,
    bool IsProved,
    IReadOnlyList<string> Savings
);

/// <summary>What is done by hand to a piece once it is printed and cut.</summary>
/// <param name="Number">Of the piece.</param>
/// <param name="Steps">In their order.</param>
public sealed record HandWork(string Number, IReadOnlyList<string> Steps);

/// <param name="PaperName">Such as Letter, or an offcut.</param>
/// <param name="Side">Which side of its paper.</param>
/// <param name="IsLeftover">It was printed on before.</param>
/// <param name="CutsInOrder">The cuts with the settings of the trimmer's stop; empty for a back.</param>
public sealed record SheetView(
    int Number,
    Stock Stock,
    string StockName,
    IReadOnlyList<string> Numbers,
    int Cuts,
    string PaperName,
    SheetSide Side,
    bool IsLeftover,
    string CutsInOrder
);

public sealed record PrintJobView(Guid Id, JobState State, int PagesDone, int PagesTotal, string? Problem)
{
    public static PrintJobView Of(PrintJob job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return new PrintJobView(job.Id, job.State, job.PagesDone, job.PagesTotal, job.Problem);
    }
}
