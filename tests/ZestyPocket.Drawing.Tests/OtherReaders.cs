using System.Diagnostics;

namespace ZestyPocket.Drawing.Tests;

/// <summary>Runs an independent reader from Debian's packages (qpdf, poppler-utils).</summary>
public static class OtherReaders
{
    public static async Task<(int Code, string Output)> Run(string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments)
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            StandardOutputEncoding = System.Text.Encoding.UTF8,
        };
        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        var output = await process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (process.ExitCode, output + await errors);
    }
}
