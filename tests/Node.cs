using System.Diagnostics;

namespace ZestyPocket.Tests;

/// <summary>
/// Runs a script of the tests with the packages of the web client: other people's libraries, to check against.
/// </summary>
internal static class Node
{
    /// <param name="script">Its path under the folder of the tests.</param>
    public static async Task<string> RunAsync(string script, string input)
    {
        var start = new ProcessStartInfo(
            "node",
            [Path.Combine(Repository.Root, "tests", script), Path.Combine(Repository.Root, "src/web")]
        )
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var node = Process.Start(start)!;
        await node.StandardInput.WriteAsync(input);
        node.StandardInput.Close();
        var output = node.StandardOutput.ReadToEndAsync();
        var errors = await node.StandardError.ReadToEndAsync();
        await node.WaitForExitAsync();
        node.ExitCode.ShouldBe(0, errors);
        return await output;
    }
}
