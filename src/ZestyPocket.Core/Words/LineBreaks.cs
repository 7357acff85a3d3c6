using C = ZestyPocket.Core.Words.LineBreakClass;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Where a line may end: the rules of the Unicode line breaking algorithm. Source: UAX #14, revision 49 (Unicode 15.0),
/// rules LB1 to LB31, with numbers kept together by the regular expression that the standard gives beside LB25 and its
/// own test file uses. Classes from its LineBreak.txt.
/// </summary>
public static class LineBreaks
{
    /// <summary>
    /// Positions (1 … length, in UTF-16 units) at which the next line may start, ascending; the end is always one.
    /// </summary>
    public static IReadOnlyList<int> Opportunities(string paragraph)
    {
        ArgumentNullException.ThrowIfNull(paragraph);
        var units = Units(paragraph);
        var breaks = new List<int>(paragraph.Length / 5);
        var state = new State();
        for (var i = 0; i < units.Count; i++)
        {
            if (i > 0 && MayBreak(units, i, state))
            {
                breaks.Add(units[i].At);
            }

            state.Pass(units[i]);
        }

        breaks.Add(paragraph.Length);
        return breaks;
    }

    /// <summary>A character with the marks that belong to it (LB9).</summary>
    private readonly record struct Unit(int At, int Scalar, C Class, bool EndsInJoiner);

    private static List<Unit> Units(string paragraph)
    {
        var units = new List<Unit>(paragraph.Length);
        for (var at = 0; at < paragraph.Length; )
        {
            var paired = char.IsSurrogatePair(paragraph, at);
            var scalar = paired ? char.ConvertToUtf32(paragraph[at], paragraph[at + 1]) : paragraph[at];
            var found = LineBreakClasses.Of(scalar);
            if (found is C.CM or C.ZWJ)
            {
                if (units.Count > 0 && units[^1].Class is not (C.BK or C.CR or C.LF or C.NL or C.SP or C.ZW))
                {
                    units[^1] = units[^1] with { EndsInJoiner = found == C.ZWJ };
                }
                else
                {
                    // LB10: a mark on nothing stands for a letter.
                    units.Add(new Unit(at, scalar, C.AL, found == C.ZWJ));
                }
            }
            else
            {
                units.Add(new Unit(at, scalar, found, false));
            }

            at += paired ? 2 : 1;
        }

        return units;
    }

    /// <summary>What the rules remember of what they have passed.</summary>
    private sealed class State
    {
        /// <summary>The last class that was not a space.</summary>
        public C BeforeSpaces { get; private set; } = C.XX;

        /// <summary>How many regional indicators stand in a row.</summary>
        public int Indicators { get; private set; }

        /// <summary>Inside a number: NU (NU | SY | IS)*.</summary>
        public bool InNumber { get; private set; }

        /// <summary>Behind a number that was closed by a bracket.</summary>
        public bool NumberClosed { get; private set; }

        public void Pass(Unit unit)
        {
            NumberClosed = InNumber && (unit.Class is C.CL or C.CP);
            InNumber = unit.Class == C.NU || (InNumber && (unit.Class is C.SY or C.IS));
            Indicators = unit.Class == C.RI ? Indicators + 1 : 0;
            BeforeSpaces = unit.Class == C.SP ? BeforeSpaces : unit.Class;
        }
    }

    private static bool MayBreak(List<Unit> units, int i, State state)
    {
        var (before, now) = (units[i - 1].Class, units[i].Class);
        switch (before)
        {
            // LB4, LB5
            case C.BK or C.LF or C.NL:
                return true;
            case C.CR:
                return now != C.LF;
            default:
                break;
        }

        // LB6, LB7
        if (now is C.BK or C.CR or C.LF or C.NL or C.SP or C.ZW)
        {
            return false;
        }

        // LB8: ZW SP* ÷
        if (state.BeforeSpaces == C.ZW)
        {
            return true;
        }

        // LB8a, LB11, LB12
        if (units[i - 1].EndsInJoiner || now == C.WJ || before is C.WJ or C.GL)
        {
            return false;
        }

        // LB12a
        if (now == C.GL && before is not (C.SP or C.BA or C.HY))
        {
            return false;
        }

        // LB13 to LB17, across spaces
        if (
            now is C.CL or C.CP or C.EX or C.IS or C.SY
            || state.BeforeSpaces == C.OP
            || (state.BeforeSpaces == C.QU && now == C.OP)
            || ((state.BeforeSpaces is C.CL or C.CP) && now == C.NS)
            || (state.BeforeSpaces == C.B2 && now == C.B2)
        )
        {
            return false;
        }

        // LB18, then what stays together without a space between
        return before == C.SP || !Joined(units, i, state);
    }

    /// <summary>LB19 to LB30b; LB31 parts all others.</summary>
    private static bool Joined(List<Unit> units, int i, State state)
    {
        var (before, now) = (units[i - 1].Class, units[i].Class);
        // LB19, LB20
        if (now == C.QU || before == C.QU)
        {
            return true;
        }

        if (now == C.CB || before == C.CB)
        {
            return false;
        }

        // LB21, LB21a, LB21b, LB22
        if (
            now is C.BA or C.HY or C.NS or C.IN
            || before == C.BB
            || (i >= 2 && units[i - 2].Class == C.HL && (before is C.HY or C.BA))
            || (before == C.SY && now == C.HL)
        )
        {
            return true;
        }

        // LB25: (PR | PO)? (OP | HY)? NU (NU | SY | IS)* (CL | CP)? (PR | PO)?
        if (
            (now == C.NU && (state.InNumber || before is C.PR or C.PO or C.HY))
            || ((now is C.PR or C.PO) && (state.InNumber || state.NumberClosed))
            || ((before is C.PR or C.PO) && (now is C.OP or C.HY) && i + 1 < units.Count && units[i + 1].Class == C.NU)
        )
        {
            return true;
        }

        return (before, now) switch
        {
            // LB23, LB23a, LB24
            (C.AL or C.HL, C.NU or C.PR or C.PO) or (C.NU or C.PR or C.PO, C.AL or C.HL) => true,
            (C.PR, C.ID or C.EB or C.EM) or (C.ID or C.EB or C.EM, C.PO) => true,

            // LB26, LB27
            (C.JL, C.JL or C.JV or C.H2 or C.H3) or (C.JV or C.H2, C.JV or C.JT) or (C.JT or C.H3, C.JT) => true,
            (C.JL or C.JV or C.JT or C.H2 or C.H3, C.PO) or (C.PR, C.JL or C.JV or C.JT or C.H2 or C.H3) => true,

            // LB28, LB29
            (C.AL or C.HL or C.IS, C.AL or C.HL) => true,

            // LB30
            (C.AL or C.HL or C.NU, C.OP) => !LineBreakClasses.IsWide(units[i].Scalar),
            (C.CP, C.AL or C.HL or C.NU) => !LineBreakClasses.IsWide(units[i - 1].Scalar),

            // LB30a, LB30b
            (C.RI, C.RI) => state.Indicators % 2 == 1,
            (C.EB, C.EM) => true,
            (C.ID, C.EM) => LineBreakClasses.IsUnassignedPictograph(units[i - 1].Scalar),
            _ => false,
        };
    }
}
