using System.Diagnostics;
using System.Globalization;

namespace ZestyPocket.Bench;

/// <summary>CPU seconds of this process and of the child processes it has waited for, from /proc/self/stat.</summary>
internal static class Cpu
{
    public static (double Own, double Children) Now()
    {
        var text = File.ReadAllText("/proc/self/stat");
        // The command name in brackets may hold blanks: fields are counted from behind it.
        var fields = text[(text.LastIndexOf(')') + 2)..].Split(' ');
        const double ticksASecond = 100;
        return ((Ticks(11) + Ticks(12)) / ticksASecond, (Ticks(13) + Ticks(14)) / ticksASecond);

        double Ticks(int field) => double.Parse(fields[field], CultureInfo.InvariantCulture);
    }

    /// <summary>Runs a program to its end and gives the CPU seconds it took.</summary>
    public static double OfProgram(string program, IEnumerable<string> arguments)
    {
        var before = Now().Children;
        using (var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardError = true })!)
        {
            process.StandardError.ReadToEnd();
            process.WaitForExit();
            if (process.ExitCode != 0)
            {
                throw new InvalidOperationException($"{program} failed with {process.ExitCode}.");
            }
        }

        return Now().Children - before;
    }

    public static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted[sorted.Count / 2];
    }
}
