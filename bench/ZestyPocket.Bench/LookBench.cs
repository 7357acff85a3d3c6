using System.Diagnostics;
using ZestyPocket.Core.LookingOver;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// Looking over an album of 160 filled weeks of 18 pockets, against filling them: the slow look must not be slow. Once,
/// twice and four times as many weeks.
/// </summary>
internal static class LookBench
{
    private const int Weeks = 160;

    public static void Run()
    {
        using var fonts = new FontShelf();
        var tools = new EditTools(Guid.CreateVersion7, fonts);
        var (filling, _) = Cpu.Now();
        var units = Enumerable
            .Range(0, Weeks)
            .Select(seed =>
            {
                var desk = PlacingBench.Desk(seed, "9x12-nine-3x4", "9x12-nine-3x4", 24);
                var filled = new FillSpread { Revision = 0 }
                    .Apply(desk, tools)
                    .Content;
                return new UnitToLook(Guid.CreateVersion7(), desk with { Content = filled });
            })
            .ToList();
        var took = Cpu.Now().Own - filling;
        Look(units, fonts);
        Console.WriteLine($"looking over {Weeks} weeks of 18 pockets (filling them: {took:0.0} s of CPU):");
        foreach (var times in new[] { 1, 2, 4 })
        {
            List<UnitToLook> many = [.. Enumerable.Range(0, times).SelectMany(_ => units)];
            var runs = Enumerable.Range(0, 5).Select(_ => Look(many, fonts)).OrderBy(r => r.Cpu).ToList();
            Console.WriteLine(
                $"  {many.Count} weeks: median {runs[2].Cpu:0.00} s of CPU, {runs[2].Wall:0.00} s, "
                    + $"{runs[2].Findings} findings"
            );
        }
    }

    private static (double Cpu, double Wall, int Findings) Look(List<UnitToLook> units, FontShelf fonts)
    {
        var (watch, cpu) = (Stopwatch.StartNew(), Cpu.Now().Own);
        var found = units.Sum(u => UnitLook.Over(u.UnitId, u.Desk, fonts).Count);
        found += AlbumLook.Over(units, new Dictionary<Guid, string>(), []).Count;
        return (Cpu.Now().Own - cpu, watch.Elapsed.TotalSeconds, found);
    }
}
