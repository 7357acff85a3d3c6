using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>Makes a <see cref="PrintPlan"/>: which sheets, what lies where on them, and where they are cut.</summary>
internal sealed class PrintPlanning(PrinterSetup setup, ISheetCovering? covering, CancellationToken cancel)
{
    private readonly ImmutableArray<PlannedSheet>.Builder _sheets = ImmutableArray.CreateBuilder<PlannedSheet>();
    private readonly HashSet<Guid> _usedLeftovers = [];
    private readonly Dictionary<SheetOnHand, int> _used = [];
    private bool _proved = true;

    public PrintPlan Of(IReadOnlyList<DuePiece> due)
    {
        // A copy is cut and numbered like its piece.
        due =
        [
            .. (setup.Options.Only is { } only ? PrintPlan.WhollyOn(due, only) : due).SelectMany(d =>
                Enumerable.Repeat(d, setup.Options.Copies)
            ),
        ];
        var carriers = due.Where(d => d.OnCarrier).ToImmutableArray();
        due = [.. due.Where(d => !d.OnCarrier)];
        var tooLarge = due.Where(d =>
                !SheetPacking.CanHold(setup.ForPieces.Size, new SheetPiece(0, d.Cut, MayTurn(d.Stock)))
            )
            .ToImmutableArray();
        var onSheets = due.Where(d => !tooLarge.Contains(d)).ToList();
        foreach (
            var (stock, both) in Enum.GetValues<Stock>()
                .Select(stock => (stock, false))
                .Concat(Enum.GetValues<Stock>().Select(stock => (stock, true)))
        )
        {
            var pieces = onSheets.FindAll(d => d.Stock == stock && d.Back is not null == both);
            foreach (
                var together in setup.Options.UnitPerSheet
                    ? pieces.GroupBy(d => d.UnitId).Select(g => g.ToList()).ToList()
                    : [pieces]
            )
            {
                Fill(stock, both, together);
            }
        }

        var backs = tooLarge
            .Where(d => d.Back is not null)
            .Select(d => d with { PieceId = d.Back!.PieceId, Number = d.Back.Number, Part = 0, Back = null });
        ImmutableArray<DuePiece> large = [.. tooLarge, .. backs];
        return new PrintPlan(setup, _sheets.ToImmutable(), setup.Options.Tiles ? [] : large)
        {
            Carriers = Carriers([.. carriers]),
            Tiles = setup.Options.Tiles ? [.. large.SelectMany(d => Tiling.Of(d, setup.ForParts))] : [],
            IsProved = _proved,
        };
    }

    /// <summary>Room under the cards for what is to be done. A choice of this program.</summary>
    private static Length CarrierFoot => Length.FromInches(1);

    /// <summary>Cards lie apart on their carrier, for the tape. Common practice.</summary>
    private static Length TapeGap => Length.FromMillimetres(14);

    /// <summary>As few carrier sheets as the cards need. A card that fits none is refused.</summary>
    private ImmutableArray<PlannedSheet> Carriers(List<DuePiece> cards)
    {
        var paper = setup.Paper.Size;
        var edge = Length.Max(setup.Margin, Length.FromMillimetres(8));
        var room = new Size(paper.Width - (2 * edge), paper.Height - (2 * edge) - CarrierFoot);
        if (cards.Find(c => !SheetPacking.CanHold(room, new SheetPiece(0, c.Cut, true))) is { } tooLarge)
        {
            throw new RuleException(
                $"The card {tooLarge.Number} ({tooLarge.Cut}) does not fit on {setup.Paper.Name} as its carrier. "
                    + "Nothing was printed: choose a larger paper, or leave this card out."
            );
        }

        return
        [
            .. SheetPacking
                .Pack(
                    [.. cards.Select((c, i) => new SheetPiece(i, c.Cut, true))],
                    room,
                    TapeGap,
                    seed: 1,
                    cancel: cancel
                )
                .Select(sheet => new PlannedSheet(
                    Stock.WhiteCard,
                    [
                        .. sheet.Pieces.Select(p => new PlannedPiece(
                            cards[p.Index],
                            p.Bounds.Moved(edge, edge),
                            p.Turned ? 1 : 0
                        )),
                    ],
                    [],
                    []
                )),
        ];
    }

    /// <summary>A paper with a grain or a pattern that has a direction is not turned.</summary>
    private bool MayTurn(Stock stock) => !setup.OnHand.Any(h => h.HasDirection && IsLoaded(h) && h.Stock == stock);

    private bool IsLoaded(SheetOnHand sheet) => sheet.LeftoverId is null && sheet.Paper.Key == setup.Paper.Key;

    private void Fill(Stock stock, bool both, List<DuePiece> pieces)
    {
        if (pieces.Count == 0)
        {
            return;
        }

        var setups = Sheets(stock, both);
        var kinds = Kinds(stock, setups);
        var units = pieces.Select(p => p.UnitId).Distinct().ToList();
        var filled = SheetFilling.Fill(
            [.. pieces.Select((d, i) => new SheetPiece(i, d.Cut, MayTurn(stock)))],
            kinds,
            setup.GapBetween,
            covering,
            [.. pieces.Select(p => units.IndexOf(p.UnitId))],
            cancel
        );
        _proved &= filled.IsProved;
        foreach (var sheet in filled.Sheets)
        {
            Add(sheet, stock, both, pieces, setups[sheet.Kind]);
        }
    }

    /// <summary>The loaded paper, then what is on hand of this stock: leftovers, other sizes.</summary>
    private List<(PrinterSetup Setup, SheetOnHand? OnHand)> Sheets(Stock stock, bool both)
    {
        var sheets = new List<(PrinterSetup, SheetOnHand?)>
        {
            (setup, setup.OnHand.FirstOrDefault(h => IsLoaded(h) && h.Stock == stock)),
        };
        if (both)
        {
            // The second side is turned with its paper: one size, so that nothing is mixed up.
            return sheets;
        }

        var mayTurn = MayTurn(stock);
        foreach (var hand in setup.OnHand.Where(h => h.Stock == stock && !IsLoaded(h) && h.HasDirection == !mayTurn))
        {
            var isFree = hand.LeftoverId is not { } id || (setup.Options.UseLeftovers && !_usedLeftovers.Contains(id));
            var other = setup with { Paper = hand.Paper, Free = hand.Free };
            if (isFree && other.ForPieces.Size.IsPositive)
            {
                sheets.Add((other, hand));
            }
        }

        return sheets;
    }

    /// <summary>A sheet costs its price, or its area when a price is missing; a leftover costs nothing.</summary>
    private List<SheetKind> Kinds(Stock stock, List<(PrinterSetup Setup, SheetOnHand? OnHand)> setups)
    {
        var priced = setups.TrueForAll(s => s.OnHand is { LeftoverId: not null } or { Price: > 0 });
        return setups.ConvertAll(s =>
        {
            var isLoaded = s.OnHand is null || IsLoaded(s.OnHand);
            var most = s.OnHand switch
            {
                { LeftoverId: not null } => 1,
                { Count: { } count } when !isLoaded => Math.Max(0, count - _used.GetValueOrDefault(s.OnHand)),
                _ => int.MaxValue,
            };
            var cost =
                s.OnHand?.LeftoverId is not null ? 0
                : priced ? (long)Math.Round(100_000 * s.OnHand!.Price!.Value)
                : SheetKind.AreaOf(s.Setup.Paper.Size);
            return new SheetKind(s.Setup.ForPieces.Size, cost, most);
        });
    }

    private void Add(
        PackedSheet sheet,
        Stock stock,
        bool both,
        List<DuePiece> pieces,
        (PrinterSetup Setup, SheetOnHand? OnHand) on
    )
    {
        var room = on.Setup.ForPieces;
        var inner =
            GuillotineCuts.Of(room.Size, sheet.Pieces)
            ?? throw new InvalidOperationException("The packing cannot be cut edge to edge.");
        // An edge of paper needs no cut: only a printer without margins reaches it.
        var atTheEdge = on.Setup.Margin > Length.Zero || on.Setup.Free is not null || setup.Options.Bleed > Length.Zero;
        var cuts = (atTheEdge ? GuillotineCuts.AlongTheEdge(room.Size, sheet.Pieces) : []).Concat(inner);
        var planned = new PlannedSheet(
            stock,
            [
                .. sheet.Pieces.Select(p => new PlannedPiece(
                    pieces[p.Index],
                    p.Bounds.Moved(room.X, room.Y),
                    p.Turned ? 1 : 0
                )),
            ],
            [.. sheet.Offcuts.Select(o => o.Moved(room.X, room.Y))],
            [.. cuts.Select(c => new CutLine(c.X1 + room.X, c.Y1 + room.Y, c.X2 + room.X, c.Y2 + room.Y))],
            both ? SheetSide.Front : SheetSide.Only
        )
        {
            Other = sheet.Kind == 0 ? null : on.Setup,
            LeftoverId = on.OnHand?.LeftoverId,
        };
        if (on.OnHand is { } hand)
        {
            _used[hand] = _used.GetValueOrDefault(hand) + 1;
            if (hand.LeftoverId is { } id)
            {
                _usedLeftovers.Add(id);
            }
        }

        _sheets.Add(planned);
        if (both)
        {
            _sheets.Add(planned.BackOf(setup.Paper.Size));
        }
        else if (setup.Options.NumbersOnBack)
        {
            _sheets.Add(planned.NumbersBehind(on.Setup.Paper.Size));
        }
    }
}
