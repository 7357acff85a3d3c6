using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>
/// Keeps pieces that belong together on few sheets, at no cost: pieces of one size trade their places.
/// </summary>
public static class SheetGroups
{
    private const int MostRounds = 30;

    /// <summary>On how many sheets the groups lie, added up over the groups.</summary>
    public static int Spread(IReadOnlyList<PackedSheet> sheets, IReadOnlyList<int> groupOf)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        ArgumentNullException.ThrowIfNull(groupOf);
        return sheets.Sum(s => s.Pieces.Select(p => groupOf[p.Index]).Distinct().Count());
    }

    /// <summary>The same places, with the pieces of a group on as few of the sheets as trading finds.</summary>
    public static IReadOnlyList<PackedSheet> Gathered(
        IReadOnlyList<PackedSheet> sheets,
        IReadOnlyList<SheetPiece> pieces,
        IReadOnlyList<int> groupOf
    )
    {
        ArgumentNullException.ThrowIfNull(sheets);
        ArgumentNullException.ThrowIfNull(pieces);
        ArgumentNullException.ThrowIfNull(groupOf);
        if (sheets.Count < 2)
        {
            return sheets;
        }

        var trading = new Trading(sheets, pieces, groupOf);
        trading.DealInOrder();
        for (var round = 0; round < MostRounds && trading.TradeOnce(); round++) { }

        var dealt = trading.Sheets(sheets);
        return Spread(dealt, groupOf) < Spread(sheets, groupOf) ? dealt : sheets;
    }

    private sealed class Trading
    {
        private readonly IReadOnlyList<SheetPiece> _pieces;
        private readonly IReadOnlyList<int> _groupOf;
        private readonly List<(int Sheet, Rect Bounds)> _places = [];
        private readonly List<int> _pieceAt = [];
        private readonly List<int[]> _bySize = [];
        private readonly Dictionary<(int Group, int Sheet), int> _count = [];

        public Trading(IReadOnlyList<PackedSheet> sheets, IReadOnlyList<SheetPiece> pieces, IReadOnlyList<int> groupOf)
        {
            (_pieces, _groupOf) = (pieces, groupOf);
            var sizes = new Dictionary<(Size, bool), List<int>>();
            for (var s = 0; s < sheets.Count; s++)
            {
                foreach (var piece in sheets[s].Pieces)
                {
                    var cut = pieces[piece.Index].Cut;
                    var mayTurn = pieces[piece.Index].MayTurn;
                    var key = (mayTurn && cut.Width > cut.Height ? cut.Turned : cut, mayTurn);
                    if (!sizes.TryGetValue(key, out var places))
                    {
                        sizes[key] = places = [];
                    }

                    places.Add(_places.Count);
                    _places.Add((s, piece.Bounds));
                    _pieceAt.Add(piece.Index);
                }
            }

            _bySize.AddRange(sizes.Values.Select(p => p.ToArray()));
            Count();
        }

        /// <summary>Sheet by sheet, the places go to the groups in their order.</summary>
        public void DealInOrder()
        {
            foreach (var places in _bySize)
            {
                var dealt = places.Select(p => _pieceAt[p]).OrderBy(i => _groupOf[i]).ThenBy(i => i).ToList();
                for (var i = 0; i < places.Length; i++)
                {
                    _pieceAt[places[i]] = dealt[i];
                }
            }

            Count();
        }

        /// <summary>Makes every trade that helps; false when none did.</summary>
        public bool TradeOnce()
        {
            var helped = false;
            foreach (var places in _bySize)
            {
                for (var i = 0; i < places.Length; i++)
                {
                    for (var j = i + 1; j < places.Length; j++)
                    {
                        helped |= Trade(places[i], places[j]);
                    }
                }
            }

            return helped;
        }

        public List<PackedSheet> Sheets(IReadOnlyList<PackedSheet> sheets) =>
            [
                .. sheets.Select(
                    (sheet, s) =>
                        sheet with
                        {
                            Pieces =
                            [
                                .. Enumerable
                                    .Range(0, _places.Count)
                                    .Where(p => _places[p].Sheet == s)
                                    .Select(p => new PackedPiece(
                                        _pieceAt[p],
                                        _places[p].Bounds,
                                        _places[p].Bounds.Width != _pieces[_pieceAt[p]].Cut.Width
                                    ))
                                    .OrderBy(p => p.Index),
                            ],
                        }
                ),
            ];

        private void Count()
        {
            _count.Clear();
            for (var p = 0; p < _places.Count; p++)
            {
                Add(_groupOf[_pieceAt[p]], _places[p].Sheet, 1);
            }
        }

        private void Add(int group, int sheet, int by) =>
            _count[(group, sheet)] = _count.GetValueOrDefault((group, sheet)) + by;

        private bool Trade(int one, int other)
        {
            var (here, there) = (_places[one].Sheet, _places[other].Sheet);
            var (mine, theirs) = (_groupOf[_pieceAt[one]], _groupOf[_pieceAt[other]]);
            if (here == there || mine == theirs)
            {
                return false;
            }

            // Fewer sheets count; of trades that change none, those that draw a group closer.
            var gain = Leaves(mine, here) - Enters(mine, there) + Leaves(theirs, there) - Enters(theirs, here);
            var pull = At(mine, there) - (At(mine, here) - 1) + At(theirs, here) - (At(theirs, there) - 1);
            if (gain < 0 || (gain == 0 && pull <= 0))
            {
                return false;
            }

            (_pieceAt[one], _pieceAt[other]) = (_pieceAt[other], _pieceAt[one]);
            Add(mine, here, -1);
            Add(mine, there, 1);
            Add(theirs, there, -1);
            Add(theirs, here, 1);
            return true;
        }

        private int At(int group, int sheet) => _count.GetValueOrDefault((group, sheet));

        private int Leaves(int group, int sheet) => At(group, sheet) == 1 ? 1 : 0;

        private int Enters(int group, int sheet) => At(group, sheet) == 0 ? 1 : 0;
    }
}
