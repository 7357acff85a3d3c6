using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>Classes of UAX #14, by the standard's own names.</summary>
internal enum LineBreakClass : byte
{
    AI,
    AL,
    B2,
    BA,
    BB,
    BK,
    CB,
    CJ,
    CL,
    CM,
    CP,
    CR,
    EB,
    EM,
    EX,
    GL,
    H2,
    H3,
    HL,
    HY,
    ID,
    IN,
    IS,
    JL,
    JT,
    JV,
    LF,
    NL,
    NS,
    NU,
    OP,
    PO,
    PR,
    QU,
    RI,
    SA,
    SG,
    SP,
    SY,
    WJ,
    XX,
    ZW,
    ZWJ,
}

/// <summary>The class of each character, as UAX #14's rule LB1 resolves it.</summary>
internal static class LineBreakClasses
{
    private static readonly (int[] Starts, LineBreakClass[] Classes) Table = Load();

    /// <summary>What most words are written in, without a search.</summary>
    private static readonly LineBreakClass[] Latin = [.. Enumerable.Range(0, 0x250).Select(Resolve)];

    public static LineBreakClass Of(int scalar) => scalar < Latin.Length ? Latin[scalar] : Resolve(scalar);

    /// <summary>
    /// Opening and closing marks of East Asian width F, W or H, which rule LB30 leaves out. Source: UAX #11.
    /// </summary>
    public static bool IsWide(int scalar) =>
        scalar
            is (>= 0x2329 and <= 0x232A)
                or (>= 0x3008 and <= 0x301F)
                or (>= 0xFE10 and <= 0xFE6F)
                or (>= 0xFF00 and <= 0xFFEF);

    /// <summary>A place kept for a pictograph to come (rule LB30b).</summary>
    public static bool IsUnassignedPictograph(int scalar) =>
        scalar is >= 0x1F000 and <= 0x1FAFF
        && CharUnicodeInfo.GetUnicodeCategory(scalar) == UnicodeCategory.OtherNotAssigned;

    private static LineBreakClass Resolve(int scalar)
    {
        var at = Array.BinarySearch(Table.Starts, scalar);
        return Table.Classes[at >= 0 ? at : ~at - 1] switch
        {
            LineBreakClass.AI or LineBreakClass.SG or LineBreakClass.XX => LineBreakClass.AL,
            LineBreakClass.CJ => LineBreakClass.NS,
            LineBreakClass.SA => CharUnicodeInfo.GetUnicodeCategory(scalar)
                is UnicodeCategory.NonSpacingMark
                    or UnicodeCategory.SpacingCombiningMark
                ? LineBreakClass.CM
                : LineBreakClass.AL,
            var given => given,
        };
    }

    private static (int[] Starts, LineBreakClass[] Classes) Load()
    {
        using var stream =
            typeof(LineBreakClasses).Assembly.GetManifestResourceStream("LineBreakClasses.txt")
            ?? throw new InvalidOperationException("The line breaking classes are not in the program.");
        using var reader = new StreamReader(stream);
        var (starts, classes) = (new List<int>(), new List<LineBreakClass>());
        while (reader.ReadLine() is { } line)
        {
            if (line[0] == '#')
            {
                continue;
            }

            var gap = line.IndexOf(' ', StringComparison.Ordinal);
            starts.Add(int.Parse(line.AsSpan(0, gap), NumberStyles.HexNumber, CultureInfo.InvariantCulture));
            classes.Add(Enum.Parse<LineBreakClass>(line.AsSpan(gap + 1)));
        }

        return ([.. starts], [.. classes]);
    }
}
