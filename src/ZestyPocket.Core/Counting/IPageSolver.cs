namespace ZestyPocket.Core.Counting;

/// <summary>
/// Answers which pages hold it all. The core asks; how it is solved is somebody else's. The same question has the same
/// answer on every machine.
/// </summary>
public interface IPageSolver
{
    /// <summary>
    /// The leaves and designs with the least weighted sum of leaves, empty pockets, crops and changes, from the stock
    /// there is. Throws <see cref="RuleException"/> for a question that makes no sense and
    /// <see cref="OperationCanceledException"/> when it is cancelled.
    /// </summary>
    PageAnswer Solve(PageQuestion question, CancellationToken cancel = default);
}
