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
    Guid? PrinterId = null
)
{
    public WantedPieces Wanted => new(Choice, [.. PieceIds ?? []]);
}

/// <summary>The sheets before they are printed.</summary>
/// <param name="Pieces">How many pieces.</param>
/// <param name="Sheets">What lies on each.</param>
/// <param name="TooLarge">Pieces that have a page of their own.</param>
/// <param name="Words">The sum in words.</param>
/// <param name="ByHand">What is done to its pieces by hand, in their order.</param>
/// <param name="Cautions">For the tools that takes; the makers' instructions come first.</param>
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
    IReadOnlyList<PieceStanding> Standing
);

/// <summary>What is done by hand to a piece once it is printed and cut.</summary>
/// <param name="Number">Of the piece.</param>
/// <param name="Steps">In their order.</param>
public sealed record HandWork(string Number, IReadOnlyList<string> Steps);

public sealed record SheetView(int Number, Stock Stock, string StockName, IReadOnlyList<string> Numbers, int Cuts);

public sealed record PrintJobView(Guid Id, JobState State, int PagesDone, int PagesTotal, string? Problem)
{
    public static PrintJobView Of(PrintJob job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return new PrintJobView(job.Id, job.State, job.PagesDone, job.PagesTotal, job.Problem);
    }
}
