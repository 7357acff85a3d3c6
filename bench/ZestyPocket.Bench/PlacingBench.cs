using System.Diagnostics;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// Choosing and placing pictures on 300 random spreads, against choosing them evenly by day and hour and assigning them
/// exactly afterwards (as the program once did), and against the free choice of least crop with the same number for
/// each day (an exact assignment).
/// </summary>
internal static class PlacingBench
{
    private const int Spreads = 300;
    private static readonly LocalDate Monday = new(2026, 5, 4);

    private static readonly string[] Designs =
    [
        "9x12-rows-6x4-3x4",
        "9x12-rows-3x4-6x4",
        "9x12-nine-3x4",
        "9x12-6x8-five-3x4",
        "9x12-6x12-three-3x4",
    ];

    private static readonly (int W, int H, int Often)[] Shapes =
    [
        (4000, 3000, 30),
        (3000, 4000, 25),
        (3000, 2000, 15),
        (2000, 3000, 12),
        (3000, 3000, 6),
        (1800, 3200, 6),
        (3200, 1800, 4),
        (900, 600, 2),
    ];

    public static void Run()
    {
        using var fonts = new FontShelf();
        var (old, free, here) = (new Figures(), new Figures(), new Figures());
        var times = new Dictionary<int, List<double>>();
        for (var seed = 0; seed < Spreads; seed++)
        {
            var desk = Desk(seed);
            var pockets = desk.Pages.Pockets.Select(p => p.Face.Protector.CutSize(p.Pocket)).ToList();
            var photos = desk.Photos.Values.OrderBy(p => p.Photo.Taken).ThenBy(p => p.Id).ToList();
            var chosen = ByTurns(photos, pockets.Count);
            old.Add(Linear(chosen, pockets), pockets);
            free.Add(FreeChoice(photos, chosen, pockets), pockets);

            var watch = Stopwatch.StartNew();
            var question = DeskQuestion.Of(desk, fonts);
            var answer = SpreadSearch.Best(question);
            var took = watch.Elapsed.TotalMilliseconds;
            if (!times.TryGetValue(pockets.Count, out var list))
            {
                times[pockets.Count] = list = [];
            }

            list.Add(took);
            here.Add(
                [
                    .. answer
                        .Candidates.Select((c, p) => (c < 0 ? null : desk.Photos[question.Candidates[c].Key], p))
                        .Where(x => x.Item1 is not null)
                        .Select(x => (x.Item1!, x.p)),
                ],
                pockets
            );
        }

        Console.WriteLine($"placing, {Spreads} random spreads, {here.Count} pictures placed:");
        Console.WriteLine(
            "                                crop loss  other shape  half lost  cut through  alike twice"
        );
        old.Say("evenly by day, then assigned");
        free.Say("free choice, same days");
        here.Say("chosen and placed together");
        foreach (var (pockets, list) in times.OrderBy(t => t.Key))
        {
            list.Sort();
            Console.WriteLine(
                $"  {pockets} pockets: median {list[list.Count / 2]:0} ms, p95 {list[(int)(list.Count * 0.95)]:0} ms "
                    + $"({list.Count} spreads)"
            );
        }

        AgainstLongRuns(fonts);
        PlacingProgramme.Against(fonts);
        foreach (
            var (left, right, photos) in new[]
            {
                ("9x12-nine-3x4", "9x12-nine-3x4", 40),
                ("9x12-twelve-3x3", "9x12-twelve-3x3", 200),
                ("6x8-twelve-2x2", "6x8-twelve-2x2", 1000),
            }
        )
        {
            var desk = Desk(1, left, right, photos);
            var watch = Stopwatch.StartNew();
            var question = DeskQuestion.Of(desk, fonts);
            var asked = watch.Elapsed.TotalMilliseconds;
            var answer = SpreadSearch.Best(question);
            var once = watch.Elapsed.TotalMilliseconds;
            var further = SpreadSearch.Best(question, effort: 20);
            Console.WriteLine(
                $"  {question.Pockets.Length} pockets, {photos} photos: asked in {asked:0} ms, "
                    + $"answered in {once - asked:0} ms; "
                    + $"20 times the effort finds {answer.Cost - further.Cost} less"
            );
        }
    }

    /// <summary>100 spreads of 18 pockets: how often fifty times the effort finds nothing better.</summary>
    private static void AgainstLongRuns(FontShelf fonts)
    {
        var (same, gap) = (0, 0.0);
        for (var seed = 0; seed < 100; seed++)
        {
            var question = DeskQuestion.Of(Desk(seed, "9x12-nine-3x4", "9x12-nine-3x4", 18 + (seed % 19)), fonts);
            var (once, longer) = (SpreadSearch.Best(question).Cost, SpreadSearch.Best(question, effort: 50).Cost);
            same += once <= longer ? 1 : 0;
            gap = Math.Max(gap, (double)(once - longer) / Math.Max(1, Math.Abs(longer)));
        }

        Console.WriteLine(
            $"  18 pockets: in {same} of 100 spreads fifty times the effort finds nothing better; largest gap {gap:P2}"
        );
    }

    private static UnitDesk Desk(int seed)
    {
        var dice = new Random(seed);
        var (left, right) = (Designs[dice.Next(Designs.Length)], Designs[dice.Next(Designs.Length)]);
        var pockets = BuiltInDesigns.Find(left)!.Pockets.Length + BuiltInDesigns.Find(right)!.Pockets.Length;
        return Desk(seed, left, right, pockets + dice.Next(0, pockets + 1));
    }

    internal static UnitDesk Desk(int seed, string left, string right, int photos)
    {
        var dice = new Random(seed + 7);
        var (one, two) = (
            Protector.Unmeasured(BuiltInDesigns.Find(left)!),
            Protector.Unmeasured(BuiltInDesigns.Find(right)!)
        );
        var dates = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday }.FirstUnits(1)[0];
        return new UnitDesk(
            UnitContent.Empty,
            new UnitPages(
                dates,
                [
                    new UnitFace(new Guid(1, 0, 0, new byte[8]), LeafSide.Back, one, LeafAlterations.Plain),
                    new UnitFace(new Guid(2, 0, 0, new byte[8]), LeafSide.Front, two, LeafAlterations.Plain),
                ]
            ),
            dates,
            "Week 19",
            Enumerable.Range(1, photos).Select(One).ToDictionary(p => p.Id),
            AlbumWords.Usual,
            new HashSet<Size>(),
            MeasureSystem.Inches
        );

        DeskPhoto One(int n)
        {
            var at = dice.Next(Shapes.Sum(s => s.Often));
            var shape = Shapes.First(s => (at -= s.Often) < 0);
            var day = Monday.PlusDays(dice.Next(7));
            return new DeskPhoto(
                new LoosePhoto(
                    new Guid(n, 3, 0, new byte[8]),
                    new PixelSize(shape.W, shape.H),
                    day,
                    day.At(new LocalTime(dice.Next(7, 22), dice.Next(60)))
                ),
                $"{n}.jpg",
                Framing.Around(0.3 + (0.4 * dice.NextDouble()), 0.3 + (0.4 * dice.NextDouble()), [])
            )
            {
                Tone = 20 + (70 * dice.NextDouble()),
                Likeness = (ulong)dice.NextInt64(),
                GroupId = dice.Next(5) == 0 ? new Guid(dice.Next(4), 4, 0, new byte[8]) : null,
                Keep = dice.Next(4) == 0 ? [new PictureBox(0.1, 0.15, 0.75, 0.5)] : [],
            };
        }
    }

    /// <summary>One picture from each day, then a second, until the pockets are full.</summary>
    private static List<DeskPhoto> ByTurns(List<DeskPhoto> photos, int room)
    {
        if (photos.Count <= room)
        {
            return photos;
        }

        var days = photos.GroupBy(p => p.Photo.Day).Select(g => g.ToList()).ToList();
        var quota = new int[days.Count];
        for (var (left, round) = (room, 0); left > 0; round++)
        {
            for (var d = 0; d < days.Count && left > 0; d++)
            {
                if (days[d].Count > round)
                {
                    quota[d]++;
                    left--;
                }
            }
        }

        return
        [
            .. days.SelectMany(
                (day, d) => Enumerable.Range(0, quota[d]).Select(i => day[((2 * i) + 1) * day.Count / (2 * quota[d])])
            ),
        ];
    }

    private static List<(DeskPhoto, int)> Linear(List<DeskPhoto> chosen, List<Size> pockets)
    {
        var cost = new long[chosen.Count, pockets.Count];
        for (var i = 0; i < chosen.Count; i++)
        {
            for (var j = 0; j < pockets.Count; j++)
            {
                var (loss, _, ppi) = DeskQuestion.CropOf(chosen[i], pockets[j]);
                cost[i, j] = (long)
                    Math.Round(
                        1000
                            * (
                                (1000 * loss)
                                + (800 * Math.Max(0, 1 - (ppi / 200)))
                                + (150 * Math.Abs(((double)i / (chosen.Count - 1)) - ((double)j / (pockets.Count - 1))))
                            )
                    );
            }
        }

        return [.. Assignment.Solve(cost).Select((pocket, i) => (chosen[i], pocket))];
    }

    /// <summary>The least crop with as many pictures of each day as another choice took: exactly.</summary>
    private static List<(DeskPhoto, int)> FreeChoice(List<DeskPhoto> photos, List<DeskPhoto> chosen, List<Size> pockets)
    {
        var quota = chosen.GroupBy(p => p.Photo.Day!.Value).ToDictionary(g => g.Key, g => g.Count());
        // Pictures that stay out lie in as many rows of their own day as are left over.
        var rest = photos
            .GroupBy(p => p.Photo.Day!.Value)
            .SelectMany(g => Enumerable.Repeat(g.Key, g.Count() - quota.GetValueOrDefault(g.Key)))
            .ToList();
        var rows = pockets.Count + rest.Count;
        var cost = new long[rows, photos.Count];
        for (var j = 0; j < photos.Count; j++)
        {
            for (var i = 0; i < pockets.Count; i++)
            {
                cost[i, j] = (long)Math.Round(1_000_000 * DeskQuestion.CropOf(photos[j], pockets[i]).Loss);
            }

            for (var i = 0; i < rest.Count; i++)
            {
                cost[pockets.Count + i, j] = rest[i] == photos[j].Photo.Day ? 0 : 1_000_000_000_000;
            }
        }

        return [.. Assignment.Solve(cost).Take(pockets.Count).Select((column, i) => (photos[column], i))];
    }

    private sealed class Figures
    {
        private double _loss;
        private int _other;
        private int _half;
        private int _cut;
        private int _same;

        public int Count { get; private set; }

        public void Add(List<(DeskPhoto Photo, int Pocket)> laid, List<Size> pockets)
        {
            foreach (var (photo, pocket) in laid)
            {
                var (loss, cuts, _) = DeskQuestion.CropOf(photo, pockets[pocket]);
                Count++;
                _loss += loss;
                _half += loss > 0.5 - 1e-9 ? 1 : 0;
                _cut += cuts ? 1 : 0;
                _other += (photo.Photo.Pixels.Proportion - 1) * (pockets[pocket].Proportion - 1) < -0.002 ? 1 : 0;
            }

            _same += laid.Where(l => l.Photo.GroupId is not null).GroupBy(l => l.Photo.GroupId).Sum(g => g.Count() - 1);
        }

        public void Say(string name) =>
            Console.WriteLine(
                $"  {name, -30}{100 * _loss / Count, 8:0.0} % {100.0 * _other / Count, 10:0.0} % "
                    + $"{_half, 10} {_cut, 12} {_same, 15}"
            );
    }
}
