using System.Diagnostics;
using System.Globalization;

namespace ZestyPocket.Drawing.Photos;

/// <summary>
/// A reader of files as a process of its own, bounded in time and memory: a hostile file costs that and no more, also
/// when the server that started it is gone.
/// </summary>
internal static class ReaderProcess
{
    /// <summary>
    /// Runs a program and gives what it wrote. Throws <see cref="PictureTakesLongException"/> when it takes longer than
    /// <paramref name="patience"/>, and <see cref="PictureRefusedException"/> with <paramref name="refusal"/> when it
    /// fails; ends it when it is cancelled.
    /// </summary>
    public static string Run(
        string program,
        IEnumerable<string> arguments,
        TimeSpan patience,
        long memory,
        string refusal,
        CancellationToken cancel = default
    )
    {
        var seconds = (int)Math.Ceiling(patience.TotalSeconds) + 1;
        var start = new ProcessStartInfo(
            "prlimit",
            [
                string.Create(CultureInfo.InvariantCulture, $"--as={memory}"),
                string.Create(CultureInfo.InvariantCulture, $"--cpu={seconds}"),
                "--",
                program,
                .. arguments,
            ]
        )
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            RedirectStandardInput = true,
        };
        start.Environment["LC_ALL"] = "C";
        using var process = Process.Start(start) ?? throw new IOException($"{program} did not start.");
        process.StandardInput.Close();
        var output = process.StandardOutput.ReadToEndAsync(CancellationToken.None);
        var errors = process.StandardError.ReadToEndAsync(CancellationToken.None);
        using var ending = cancel.Register(() => process.Kill(entireProcessTree: true));
        if (!process.WaitForExit(patience))
        {
            process.Kill(entireProcessTree: true);
            throw new PictureTakesLongException(patience);
        }

        cancel.ThrowIfCancellationRequested();

        process.WaitForExit();
        return process.ExitCode == 0
            ? output.Result
            : throw new PictureRefusedException(refusal, new IOException($"{program}: {errors.Result}"));
    }
}
