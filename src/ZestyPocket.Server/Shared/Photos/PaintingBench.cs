namespace ZestyPocket.Server.Shared;

/// <summary>
/// Where pictures are made for requests: no more at a time than there are cores, on threads of their own, so that none
/// that answers requests is ever busy with painting. What a painter asks for while it paints is made where it is: two
/// that held places while they waited for more would wait for ever.
/// </summary>
public sealed class PaintingBench : IDisposable
{
    private readonly SemaphoreSlim _places = new(Environment.ProcessorCount);

    /// <summary>Does the work once there is a place; the wait for one can be called off, the work cannot.</summary>
    public async Task<T> RunAsync<T>(Func<T> work, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        await _places.WaitAsync(cancel);
        try
        {
            return await Task.Factory.StartNew(
                work,
                cancel,
                TaskCreationOptions.LongRunning | TaskCreationOptions.DenyChildAttach,
                TaskScheduler.Default
            );
        }
        finally
        {
            _places.Release();
        }
    }

    public void Dispose() => _places.Dispose();
}
