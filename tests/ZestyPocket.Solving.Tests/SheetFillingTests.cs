using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Solving.Tests;

/// <summary>
/// The fewest sheets: never worse than fixed rules, every pattern can be cut, and none is missing. Sheet counts of the
/// trade are arithmetic; the rest is checked against a search that tries every cut.
/// </summary>
public sealed class SheetFillingTests
{
    private static readonly SheetCovering Covering = new();

    private static readonly Size LetterQuarterInch = new PrinterSetup(
        Paper.Letter,
        Length.FromInches(1, 4),
        Length.Zero
    )
        .ForPieces
        .Size;

    private static readonly (int W, int H)[] Pockets =
    [
        (48, 64),
        (96, 64),
        (32, 32),
        (48, 48),
        (64, 64),
        (32, 48),
        (96, 128),
        (48, 128),
    ];

    private static Size Sixteenths(int width, int height) =>
        new(Length.FromInches(width, 16), Length.FromInches(height, 16));

    private static List<SheetPiece> Pieces(IEnumerable<(int W, int H)> sizes) =>
        [.. sizes.Select((s, i) => new SheetPiece(i, Sixteenths(s.W, s.H), true))];

    private static SheetKind New(Size room) => new(room, SheetKind.AreaOf(room));

    private static void ShouldBeWhole(FilledSheets filled, List<SheetPiece> pieces, List<SheetKind> kinds, Length gap)
    {
        filled
            .Sheets.SelectMany(s => s.Pieces)
            .Select(p => p.Index)
            .Order()
            .ShouldBe(pieces.Select(p => p.Index).Order());
        foreach (var sheet in filled.Sheets)
        {
            var room = kinds[sheet.Kind].Room;
            foreach (var packed in sheet.Pieces)
            {
                var cut = pieces[packed.Index].Cut;
                packed.Bounds.Size.ShouldBe(packed.Turned ? cut.Turned : cut);
                new Rect(Length.Zero, Length.Zero, room).Contains(packed.Bounds).ShouldBeTrue();
                var around = packed.Bounds with
                {
                    Width = packed.Bounds.Width + gap,
                    Height = packed.Bounds.Height + gap,
                };
                sheet.Pieces.Count(other => other.Bounds.Overlaps(around)).ShouldBe(1);
                sheet.Offcuts.ShouldNotContain(o => o.Overlaps(packed.Bounds));
            }

            GuillotineCuts.Of(room, sheet.Pieces).ShouldNotBeNull();
        }
    }

    /// <summary>Arithmetic: six 3x4 on a Letter sheet with margins of 1/4 in, two 3x4 on a 4x6.</summary>
    [Theory]
    [InlineData(3, 4, 37, 7)]
    [InlineData(4, 6, 10, 4)]
    [InlineData(6, 8, 5, 5)]
    [InlineData(2, 2, 41, 3)]
    public void Sheet_counts_of_the_trade_are_proved(int width, int height, int count, int sheets)
    {
        var pieces = Pieces(Enumerable.Repeat((16 * width, 16 * height), count));
        var filled = SheetFilling.Fill(pieces, [New(LetterQuarterInch)], Length.Zero, Covering);
        (filled.Sheets.Length, filled.IsProved).ShouldBe((sheets, true));
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void On_random_prints_no_sheet_too_many_and_nearly_all_are_proved()
    {
        var dice = new Random(20260504);
        var (proved, fewer, scattered, gathered) = (0, 0, 0, 0);
        var instances = Thorough.Of(200, 40);
        for (var i = 0; i < instances; i++)
        {
            // Half are pocket sizes on one paper, half have another paper and a leftover beside it.
            var count = dice.Next(6, 81);
            var own = Enumerable.Range(0, dice.Next(2, 6)).Select(_ => Pockets[dice.Next(Pockets.Length)]).ToArray();
            var pieces = Pieces(Enumerable.Range(0, count).Select(_ => own[dice.Next(own.Length)]));
            List<SheetKind> kinds =
                i % 2 == 0
                    ? [New(LetterQuarterInch)]
                    : [New(LetterQuarterInch), New(Size.FromInches(4, 6)), new SheetKind(Sixteenths(56, 168), 0, 1)];
            var gap = Length.FromInches(i % 3, 32);
            int[] unit = [.. pieces.Select(p => p.Index * 6 / count)];
            var filled = SheetFilling.Fill(pieces, kinds, gap, Covering, unit);
            ShouldBeWhole(filled, pieces, kinds, gap);
            proved += filled.IsProved ? 1 : 0;
            if (i % 10 > 1)
            {
                continue;
            }

            var byRules = SheetFilling.Fill(pieces, kinds, gap, covering: null);
            filled.Cost.ShouldBeLessThanOrEqualTo(byRules.Cost, $"instance {i}");
            fewer += filled.Cost < byRules.Cost ? 1 : 0;
            var apart = SheetFilling.Fill(pieces, kinds, gap, Covering);
            apart.Cost.ShouldBe(filled.Cost);
            scattered += SheetGroups.Spread(apart.Sheets, unit);
            gathered += SheetGroups.Spread(filled.Sheets, unit);
        }

        TestContext.Current.SendDiagnosticMessage(
            "Proved {0} of {1}, fewer than by rules {2} of a fifth; units lie on {3} sheets, ungathered {4}.",
            proved,
            instances,
            fewer,
            gathered,
            scattered
        );
        proved.ShouldBeGreaterThanOrEqualTo(instances * 95 / 100);
        gathered.ShouldBeLessThan(scattered);
    }

    /// <summary>
    /// A year and half a year on two page designs of each body, with the gap that people leave for numbers.
    /// </summary>
    [Trait("Duration", "Long")]
    [Theory]
    [InlineData(26)]
    [InlineData(53)]
    public void A_year_of_each_body_takes_proved_no_sheet_too_many(int weeks)
    {
        var gap = Length.FromMillimetres(2);
        foreach (var body in BuiltInDesigns.All.GroupBy(d => d.Body))
        {
            List<PageDesign> designs = [.. body.Take(2)];
            var cuts = Enumerable
                .Range(0, 2 * weeks)
                .SelectMany(page => designs[page % designs.Count].Pockets.Select(p => p.Nominal))
                .ToList();
            List<SheetPiece> pieces =
            [
                .. cuts.Select((cut, i) => new SheetPiece(i, cut, true))
                    .Where(p => SheetPacking.CanHold(LetterQuarterInch, p))
                    .Select((p, i) => p with { Index = i }),
            ];
            List<SheetKind> kinds = [New(LetterQuarterInch)];
            var filled = SheetFilling.Fill(pieces, kinds, gap, Covering);
            ShouldBeWhole(filled, pieces, kinds, gap);
            filled.IsProved.ShouldBeTrue($"{body.Key}, {pieces.Count} pieces");
            filled.Cost.ShouldBeLessThanOrEqualTo(SheetFilling.Fill(pieces, kinds, gap, covering: null).Cost);
        }
    }

    [Fact]
    public void A_leftover_is_used_before_a_new_sheet()
    {
        var pieces = Pieces([(48, 64)]);
        List<SheetKind> kinds = [New(LetterQuarterInch), new(Sixteenths(56, 168), 0, 1)];
        var filled = SheetFilling.Fill(pieces, kinds, Length.Zero, Covering);
        filled.Sheets.Single().Kind.ShouldBe(1);
        filled.Cost.ShouldBe(0);
        // Two 3x4 are cheapest on a 4x6 of photo paper, which they fill.
        kinds = [New(LetterQuarterInch), New(Size.FromInches(4, 6))];
        SheetFilling.Fill(Pieces([(48, 64), (48, 64)]), kinds, Length.Zero, Covering).Sheets.Single().Kind.ShouldBe(1);
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void What_a_pattern_holds_can_be_cut_and_what_can_be_cut_is_in_a_pattern() =>
        Gen.Select(Gen.Select(Gen.Int[2, 8], Gen.Int[2, 8]).Array[1, 3], Gen.Int[6, 12], Gen.Int[6, 12], Gen.Bool)
            .Sample(
                (shapes, width, height, mayTurn) =>
                {
                    var sizes = shapes
                        .Distinct()
                        .Select(s => new WantedSize(Size.FromInches(s.Item1, s.Item2), mayTurn, 3))
                        .ToList();
                    var room = Size.FromInches(width, height);
                    var patterns = SheetPatterns.Of([New(room)], sizes).ShouldNotBeNull();
                    foreach (var pattern in patterns)
                    {
                        var (slots, offcuts) = pattern.Lay(room, sizes, pattern.Counts);
                        var packed = slots.Select((s, i) => new PackedPiece(i, s.Bounds, false)).ToList();
                        GuillotineCuts.Of(room, packed).ShouldNotBeNull();
                        foreach (var slot in slots)
                        {
                            slots.Count(o => o.Bounds.Overlaps(slot.Bounds)).ShouldBe(1);
                            offcuts.ShouldNotContain(o => o.Overlaps(slot.Bounds));
                        }
                    }

                    // Every choice of at most four pieces, by a search that tries every cut.
                    foreach (var counts in Choices(sizes.Count, 4))
                    {
                        var can = CanCut(width, height, counts, sizes, []);
                        var listed = patterns.Any(p => p.Counts.Zip(counts).All(c => c.First >= c.Second));
                        listed.ShouldBe(can, $"{string.Join(',', counts)} of {string.Join(' ', sizes)} on {room}");
                    }
                },
                iter: 150
            );

    private static IEnumerable<int[]> Choices(int kinds, int most)
    {
        var counts = new int[kinds];
        while (true)
        {
            var at = 0;
            while (at < kinds && ++counts[at] > 3)
            {
                counts[at++] = 0;
            }

            if (at == kinds)
            {
                yield break;
            }

            if (counts.Sum() <= most)
            {
                yield return [.. counts];
            }
        }
    }

    /// <summary>Whether pieces can be cut edge to edge, trying every cut at a whole inch.</summary>
    private static bool CanCut(
        int width,
        int height,
        int[] counts,
        List<WantedSize> sizes,
        Dictionary<string, bool> known
    )
    {
        if (counts.Sum() == 0)
        {
            return true;
        }

        var key = $"{width} {height} {string.Join(',', counts)}";
        if (known.TryGetValue(key, out var before))
        {
            return before;
        }

        var room = Size.FromInches(width, height);
        if (counts.Sum() == 1)
        {
            var only = sizes[Array.IndexOf(counts, 1)];
            return known[key] = only.Cut.FitsIn(room) || (only.MayTurn && only.Cut.Turned.FitsIn(room));
        }

        foreach (var part in Parts(counts))
        {
            int[] rest = [.. counts.Zip(part, (all, some) => all - some)];
            for (var at = 1; at < width; at++)
            {
                if (CanCut(at, height, part, sizes, known) && CanCut(width - at, height, rest, sizes, known))
                {
                    return known[key] = true;
                }
            }

            for (var at = 1; at < height; at++)
            {
                if (CanCut(width, at, part, sizes, known) && CanCut(width, height - at, rest, sizes, known))
                {
                    return known[key] = true;
                }
            }
        }

        return known[key] = false;
    }

    private static IEnumerable<int[]> Parts(int[] counts)
    {
        var part = new int[counts.Length];
        while (true)
        {
            var at = 0;
            while (at < counts.Length && ++part[at] > counts[at])
            {
                part[at++] = 0;
            }

            if (at == counts.Length)
            {
                yield break;
            }

            if (part.Sum() < counts.Sum())
            {
                yield return [.. part];
            }
        }
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void The_same_pieces_give_the_same_sheets_and_a_thousand_of_forty_sizes_are_answered()
    {
        var dice = new Random(3);
        var pieces = Pieces(
            Enumerable.Range(0, 1000).Select(i => (16 + (i % 40), 20 + (3 * (i % 40 % 20)) + dice.Next(1)))
        );
        var once = SheetFilling.Fill(pieces, [New(LetterQuarterInch)], Length.Zero, Covering);
        ShouldBeWhole(once, pieces, [New(LetterQuarterInch)], Length.Zero);
        var again = SheetFilling.Fill(pieces, [New(LetterQuarterInch)], Length.Zero, Covering);
        again.Sheets.SelectMany(s => s.Pieces).ShouldBe(once.Sheets.SelectMany(s => s.Pieces));
    }

    [Fact]
    public void Choosing_sheets_can_be_stopped()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        Should.Throw<OperationCanceledException>(() =>
            SheetFilling.Fill(
                Pieces(Enumerable.Repeat((32, 32), 30)),
                [New(LetterQuarterInch)],
                Length.Zero,
                Covering,
                cancel: stop.Token
            )
        );
    }
}
