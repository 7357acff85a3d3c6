using ZestyPocket.Core.Printing;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

public sealed record PrintRequest(string RequestKey, IReadOnlyList<Guid> UnitIds, string PaperKey, string Margin, string Gap);

/// <summary>The sheets before they are printed.</summary>
public sealed record PrintPlanView(int Pieces, IReadOnlyList<SheetView> Sheets, IReadOnlyList<string> TooLarge, string Words);

public sealed record SheetView(int Number, Stock Stock, string StockName, IReadOnlyList<string> Numbers, int Cuts);

public sealed record PrintJobView(Guid Id, PrintJobState State, int PagesDone, int PagesTotal, string? Problem)
{
    public static PrintJobView Of(PrintJob job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return new PrintJobView(job.Id, job.State, job.PagesDone, job.PagesTotal, job.Problem);
    }
}
