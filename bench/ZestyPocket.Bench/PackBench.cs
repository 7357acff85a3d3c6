using System.Diagnostics;
using System.Text.Json;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Bench;

/// <summary>
/// Packing 80 pieces of pocket sizes on Letter, ten instances, against the npm package guillotine-packer.
/// </summary>
internal static class PackBench
{
    public static void Run()
    {
        (int W, int H)[] pockets = [(3, 4), (4, 3), (6, 4), (4, 6), (2, 2), (3, 3), (4, 4), (6, 8)];
        var dice = new Random(80);
        var instances = Enumerable
            .Range(0, 10)
            .Select(_ => Enumerable.Range(0, 80).Select(_ => pockets[dice.Next(pockets.Length)]).ToArray())
            .ToList();
        var usable = Size.FromInches(8, 10);

        var (sheets, times) = (new List<int>(), new List<double>());
        foreach (var instance in instances)
        {
            var watch = Stopwatch.StartNew();
            sheets.Add(
                SheetPacking
                    .Pack(
                        [.. instance.Select((s, i) => new SheetPiece(i, Size.FromInches(s.W, s.H), true))],
                        usable,
                        Length.Zero,
                        1
                    )
                    .Count
            );
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        var input = JsonSerializer.Serialize(
            instances.Select(list => new
            {
                width = 8,
                height = 10,
                items = list.Select(s => new[] { s.W, s.H }),
            })
        );
        var root = Environment.GetEnvironmentVariable("ZESTY_ROOT") ?? Directory.GetCurrentDirectory();
        var start = new ProcessStartInfo(
            "node",
            [
                Path.Combine(root, "tests/ZestyPocket.Core.Tests/Printing/guillotine-packer.mjs"),
                Path.Combine(root, "src/web"),
            ]
        )
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
        };
        var theirWatch = Stopwatch.StartNew();
        using var node = Process.Start(start)!;
        node.StandardInput.Write(input);
        node.StandardInput.Close();
        var theirs = JsonSerializer.Deserialize<int[]>(node.StandardOutput.ReadToEnd())!;
        node.WaitForExit();
        Console.WriteLine(
            $"pack     80 pieces: ours {Cpu.Median(times):0} ms, guillotine-packer "
                + $"{theirWatch.Elapsed.TotalMilliseconds / 10:0} ms; sheets over ten instances: ours "
                + $"{sheets.Sum()}, guillotine-packer {theirs.Sum()}"
        );
    }
}
