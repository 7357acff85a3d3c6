using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>
/// The sum over a spread: what each candidate costs in its pocket, what neighbours cost each other, every day's turn,
/// pictures of one moment, and how evenly the pages weigh. Everything is counted in whole numbers.
/// </summary>
public sealed class SpreadCosts
{
    /// <summary>An empty pocket while something is left that could lie in it.</summary>
    private const long Empty = 20_000_000;

    private const long Paired = 1_200_000;
    private const long LookalikesTouch = 420_000;
    private const long SeriesTouches = -40_000;
    private const long MomentTwice = 520_000;
    private const long Scattered = 16_000;
    private const long WordsByTheirDay = -70_000;
    private const long DarkByDark = 150_000;
    private const long DayMissing = 420_000;
    private const long Uneven = 260_000;
    private const long Ends = -220_000;

    /// <summary>Darker than this a picture counts as dark.</summary>
    private const double Dark = 45;

    /// <summary>A neighbour over a whole side of an upright 3x4 counts in full.</summary>
    private const int FullEdge = 3_000;

    private readonly SpreadQuestion _question;
    private readonly long[][] _alone;
    private readonly bool[][] _allowed;
    private readonly (int Other, int Edge)[][] _beside;
    private readonly int[] _dayOf;
    private readonly int[] _momentOf;
    private readonly int[] _darkness;
    private readonly long[][] _heft;
    private readonly long[] _areaOfSpread;
    private readonly int[] _spreadOf;
    private readonly long[] _empty;
    private readonly (int Left, int Right)[] _ends;
    private readonly long[] _turns;
    private readonly long _momentTwice;
    private readonly long _uneven;
    private readonly long[]? _pairs;

    /// <summary>With more candidates what two of them cost each other is worked out when it is asked for.</summary>
    private const int MostInTable = 400;

    public SpreadCosts(SpreadQuestion question)
    {
        ArgumentNullException.ThrowIfNull(question);
        _question = question;
        var (pockets, candidates, weights) = (question.Pockets, question.Candidates, question.Weights);
        _alone = [.. pockets.Select((_, p) => Singles(p))];
        _allowed =
        [
            .. pockets.Select((_, p) => candidates.Select((_, c) => question.Prices[p][c] is not null).ToArray()),
        ];
        _beside =
        [
            .. pockets.Select(
                (_, p) =>
                    question
                        .Neighbours.Where(n => n.First == p || n.Second == p)
                        .Select(n => (n.First == p ? n.Second : n.First, n.Edge))
                        .ToArray()
            ),
        ];
        _dayOf = Numbered(candidates.Select(c => c.Kind == CandidateKind.Photo ? (object?)c.Day : null));
        _momentOf = Numbered(
            candidates.Select(c => c is { Kind: CandidateKind.Photo, SeriesId: null } ? (object?)c.GroupId : null)
        );
        _darkness = [.. candidates.Select(c => (int)Math.Round(Math.Max(0, Dark - c.Tone) / Dark * 1000))];
        _areaOfSpread = new long[pockets.Length == 0 ? 1 : pockets.Max(p => p.Spread) + 1];
        foreach (var pocket in pockets)
        {
            _areaOfSpread[pocket.Spread] += Area(pocket);
        }

        _spreadOf = [.. pockets.Select(p => p.Spread)];
        _empty = [.. pockets.Select(p => p.StaysEmpty ? 0 : Empty)];
        _heft =
        [
            .. pockets.Select(p =>
                candidates.Select(c => (p.IsRight ? 1 : -1) * (long)Math.Round(Area(p) * Heft(c))).ToArray()
            ),
        ];
        _ends = weights.BookEnds <= 0 ? [] : [.. EndsOf(question)];
        // The first picture of a day counts most, each further one less: so every day has its turn.
        _turns =
        [
            .. Enumerable
                .Range(0, pockets.Length + 2)
                .Select(nth => nth == 0 ? 0 : (long)Math.Round(DayMissing * weights.EveryDay / (nth * nth))),
        ];
        _momentTwice = (long)Math.Round(MomentTwice * weights.LookalikesApart);
        _uneven = (long)Math.Round(Uneven * weights.Calm);
        if (candidates.Length <= MostInTable)
        {
            _pairs = new long[candidates.Length * candidates.Length];
            for (var a = 0; a < candidates.Length; a++)
            {
                for (var b = 0; b < candidates.Length; b++)
                {
                    _pairs[(a * candidates.Length) + b] = Beside(a, b);
                }
            }
        }

        Days = _dayOf.Length == 0 ? 0 : _dayOf.Max() + 1;
        Moments = _momentOf.Length == 0 ? 0 : _momentOf.Max() + 1;
    }

    public SpreadQuestion Question => _question;

    private int Days { get; }

    private int Moments { get; }

    /// <summary>Whether a candidate can go into a pocket; nothing always can.</summary>
    public bool Allows(int pocket, int candidate) => candidate < 0 || _allowed[pocket][candidate];

    /// <summary>What a candidate costs in a pocket by itself, less what it would cost to leave it out.</summary>
    public long Alone(int pocket, int candidate) => candidate >= 0 ? _alone[pocket][candidate] : _empty[pocket];

    /// <summary>The whole sum of an assignment.</summary>
    public long Of(IReadOnlyList<int> assigned)
    {
        ArgumentNullException.ThrowIfNull(assigned);
        var state = new State(this, [.. assigned]);
        return state.Total;
    }

    private long[] Singles(int pocket) =>
        [
            .. _question.Candidates.Select(
                (c, i) => _question.Prices[pocket][i] is { } price ? price.Total - c.LeftOut : long.MaxValue / 4
            ),
        ];

    private static int[] Numbered(IEnumerable<object?> keys)
    {
        var numbers = new Dictionary<object, int>();
        return
        [
            .. keys.Select(key =>
                key is null ? -1
                : numbers.TryGetValue(key, out var number) ? number
                : numbers[key] = numbers.Count
            ),
        ];
    }

    /// <summary>Hundredths of a square inch.</summary>
    private static long Area(PocketToFill pocket) => (long)Math.Round((double)pocket.Cut.SquareInches * 100);

    /// <summary>Dark and strongly coloured things weigh, white paper does not; 0 to about 1.5.</summary>
    private static double Heft(Candidate candidate) => Heft(candidate.Tone, candidate.Chroma);

    /// <summary>How heavy a thing looks by its mean L* and its mean distance from grey; 0 to about 1.5.</summary>
    public static double Heft(double tone, double chroma) => ((100 - tone) / 100) + (Math.Min(60, chroma) / 120);

    /// <summary>Pairs of pockets at the outer edges of a spread's two pages.</summary>
    private static IEnumerable<(int, int)> EndsOf(SpreadQuestion question) =>
        from left in question.Pockets.Select((pocket, at) => (pocket, at))
        where left.pocket is { IsOuter: true, IsRight: false }
        from right in question.Pockets.Select((pocket, at) => (pocket, at))
        where right.pocket is { IsOuter: true, IsRight: true } && right.pocket.Spread == left.pocket.Spread
        select (left.at, right.at);

    /// <summary>What two candidates cost each other in pockets that touch; nothing between empty pockets.</summary>
    private long Pair(int a, int b, int edge)
    {
        if (a < 0 || b < 0)
        {
            return 0;
        }

        var whole = _pairs is null ? Beside(a, b) : _pairs[(a * _dayOf.Length) + b];
        return whole * Math.Min(edge, FullEdge) / FullEdge;
    }

    private long Beside(int a, int b)
    {
        var (first, second, weights) = (_question.Candidates[a], _question.Candidates[b], _question.Weights);
        double cost = 0;
        var (firstIsPhoto, secondIsPhoto) = (first.Kind == CandidateKind.Photo, second.Kind == CandidateKind.Photo);
        if (firstIsPhoto && secondIsPhoto)
        {
            if (first.SeriesId is { } series && series == second.SeriesId)
            {
                cost += SeriesTouches * weights.PicturesTogether;
            }
            else if (Alike(first, second))
            {
                cost += LookalikesTouch * weights.LookalikesApart;
            }

            cost += DarkByDark * weights.Calm * _darkness[a] * _darkness[b] / 1_000_000.0;
        }
        else if (firstIsPhoto != secondIsPhoto)
        {
            cost += Scattered * weights.PicturesTogether;
            var (picture, card) = firstIsPhoto ? (first, second) : (second, first);
            if (card.SpeaksOf is { } photo && photo == picture.PhotoId)
            {
                // The keeper said so: no weight takes it away.
                cost -= Paired;
            }
            else if (card.Kind == CandidateKind.Words && card.Day is { } day && day == picture.Day)
            {
                cost += WordsByTheirDay * weights.WordsBesidePictures;
            }
        }

        return (long)Math.Round(cost);
    }

    private static bool Alike(Candidate a, Candidate b) =>
        (a.GroupId is { } group && group == b.GroupId) || Lookalikes.AreAlike(a.Likeness, b.Likeness);

    private long End(int a, int b) =>
        a >= 0
        && b >= 0
        && _question.Candidates[a] is { Kind: CandidateKind.Filler, Pattern: { } pattern }
        && _question.Candidates[b].Kind == CandidateKind.Filler
        && _question.Candidates[b].Pattern == pattern
            ? (long)Math.Round(Ends * _question.Weights.BookEnds)
            : 0;

    /// <summary>
    /// An assignment that is changed pocket by pocket, with its sum kept up to date.
    /// </summary>
    internal sealed class State
    {
        private readonly SpreadCosts _costs;
        private readonly int[] _at;
        private readonly int[] _placedIn;
        private readonly int[] _ofDay;
        private readonly int[] _ofMoment;
        private readonly long[] _leaning;

        public State(SpreadCosts costs, int[] at)
        {
            (_costs, _at) = (costs, new int[at.Length]);
            Array.Fill(_at, -1);
            _placedIn = new int[costs._question.Candidates.Length];
            Array.Fill(_placedIn, -1);
            _ofDay = new int[costs.Days];
            _ofMoment = new int[costs.Moments];
            _leaning = new long[costs._areaOfSpread.Length];
            Total = Enumerable.Range(0, at.Length).Sum(p => costs.Alone(p, -1));
            for (var pocket = 0; pocket < at.Length; pocket++)
            {
                if (at[pocket] >= 0)
                {
                    Set(pocket, at[pocket]);
                }
            }
        }

        public long Total { get; private set; }

        public int this[int pocket] => _at[pocket];

        /// <summary>The pocket a candidate lies in; −1 for none.</summary>
        public int PocketOf(int candidate) => _placedIn[candidate];

        public int[] Copy() => [.. _at];

        /// <summary>Puts a candidate that lies nowhere, or nothing, into a pocket.</summary>
        public void Set(int pocket, int candidate)
        {
            Total += _costs.Alone(pocket, candidate) - _costs.Alone(pocket, _at[pocket]);
            foreach (var (other, edge) in _costs._beside[pocket])
            {
                Total += _costs.Pair(candidate, _at[other], edge) - _costs.Pair(_at[pocket], _at[other], edge);
            }

            foreach (var (left, right) in _costs._ends)
            {
                if (left == pocket || right == pocket)
                {
                    var other = _at[left == pocket ? right : left];
                    Total += _costs.End(candidate, other) - _costs.End(_at[pocket], other);
                }
            }

            var old = _at[pocket];
            if (old >= 0)
            {
                Count(pocket, old, -1);
                _placedIn[old] = -1;
            }

            if (candidate >= 0)
            {
                Count(pocket, candidate, 1);
                _placedIn[candidate] = pocket;
            }

            _at[pocket] = candidate;
        }

        /// <summary>Swaps what lies in two pockets.</summary>
        public void Swap(int pocket, int other)
        {
            var (a, b) = (_at[pocket], _at[other]);
            Set(pocket, -1);
            Set(other, a);
            Set(pocket, b);
        }

        private void Count(int pocket, int candidate, int by)
        {
            if (_costs._dayOf[candidate] is >= 0 and var day)
            {
                var nth = by > 0 ? ++_ofDay[day] : _ofDay[day]--;
                Total -= by * _costs._turns[nth];
            }

            if (_costs._momentOf[candidate] is >= 0 and var moment)
            {
                var nth = by > 0 ? ++_ofMoment[moment] : _ofMoment[moment]--;
                Total += nth > 1 ? by * _costs._momentTwice : 0;
            }

            var spread = _costs._spreadOf[pocket];
            Total -= Leaning(spread);
            _leaning[spread] += by * _costs._heft[pocket][candidate];
            Total += Leaning(spread);
        }

        private long Leaning(int spread) =>
            _costs._uneven * Math.Abs(_leaning[spread]) / Math.Max(1, _costs._areaOfSpread[spread]);
    }
}
