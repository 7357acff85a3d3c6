using System.Runtime.InteropServices;

namespace ZestyPocket.Server.Shared;

/// <summary>How long the calling thread has worked: time of the processor, not of the clock.</summary>
public static class ThreadTime
{
    /// <summary>CLOCK_THREAD_CPUTIME_ID of Linux, as in clock_gettime(2).</summary>
    private const int OfThisThread = 3;

    public static TimeSpan Now() =>
        GetTime(OfThisThread, out var time) == 0
            ? TimeSpan.FromSeconds(time.Seconds) + TimeSpan.FromMicroseconds(time.Nanoseconds / 1_000)
            : throw new InvalidOperationException("The time of this thread cannot be told.");

    [DllImport("libc", EntryPoint = "clock_gettime")]
    private static extern int GetTime(int clock, out Time time);

    [StructLayout(LayoutKind.Sequential)]
    private struct Time
    {
        public nint Seconds;
        public nint Nanoseconds;
    }
}
