using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

/// <summary>Asks which pages hold a stretch of the album, and puts its answers into words.</summary>
public sealed class PageChooser(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    CountReader counts,
    IPageSolver solver
)
{
    public const int MostUnits = 100;

    /// <summary>More pockets than this are not fused on one leaf: another design is easier.</summary>
    private const int MostFused = 2;

    /// <summary>The ways that are offered side by side: what they put first, and by which weights.</summary>
    private static readonly (string Name, ChoiceWeights Weights)[] Ways =
    [
        ("Balanced", ChoiceWeights.Usual),
        ("Fewest leaves", ChoiceWeights.Usual with { Leaf = 30_000 }),
        ("Least cropping", ChoiceWeights.Usual with { Leaf = 2_500, EmptyPocket = 150, Crop = 6 }),
    ];

    public async Task<IReadOnlyList<PageChoiceView>> ChooseAsync(
        Guid albumId,
        ChoosePagesRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var stretch = await albums.StretchAsync(albumId, request.From, request.Count, MostUnits, cancel);
        var units = await opener.OpenManyAsync(stretch, cancel);
        var tallies = await counts.TalliesAsync(units, cancel);
        var parts = units.Zip(tallies, (open, tally) => (Open: open, Wants: (IReadOnlyList<Want>)tally.Wants)).ToList();

        var page = new Size(album.BodyWidth, album.BodyHeight);
        var designs = album
            .Protectors.OrderBy(p => p.Ordinal)
            .Select(p => (Row: p, Protector: p.ToProtector()))
            .Where(p => p.Protector.Form.Kind == LeafKind.Pockets && p.Protector.Design.Body == page)
            .ToList();
        var keyOf = designs.ToDictionary(d => d.Row.Id, d => d.Row.Id.ToString());
        var index = parts.Select((p, u) => (p.Open.Unit.Id, u)).ToDictionary(p => p.Id, p => p.u);
        var contents = parts.ToDictionary(p => p.Open.Unit.Id, p => p.Open.Content);

        // A leaf with both faces in one part can come and go; the others stand.
        var leaves = parts
            .SelectMany(p => p.Open.Faces.Select(f => f.Leaf))
            .DistinctBy(l => l.Id)
            .OrderBy(l => l.Ordinal)
            .ToList();
        var first = parts
            .Where(p => p.Open.Faces.Count > 0)
            .ToDictionary(p => p.Open.Unit.Id, p => p.Open.Faces[0].Leaf.Id);
        // Dividers, pages outside the pockets, inserts and altered leaves are what the keeper made them: their pockets
        // are there.
        var fixedLeaves = leaves.Where(l => !keyOf.ContainsKey(l.ProtectorId) || l.ReadForm().IsAltered).ToList();
        var standing = leaves
            .Except(fixedLeaves)
            .Where(l =>
                l.FrontUnitId != l.BackUnitId
                || (
                    album.School == PageSchool.Leaf
                    && l.FrontUnitId is { } unit
                    && first.GetValueOrDefault(unit) == l.Id
                )
            )
            .ToList();
        var between = leaves.Except(fixedLeaves).Except(standing).ToList();
        var outside = standing
            .SelectMany(l => new[] { l.FrontUnitId, l.BackUnitId })
            .OfType<Guid>()
            .Where(u => !index.ContainsKey(u))
            .Distinct()
            .ToList();
        var others = await db
            .Units.AsNoTracking()
            .Where(u => outside.Contains(u.Id))
            .ToDictionaryAsync(u => u.Id, cancel);
        var used = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == albumId)
            .GroupBy(l => l.ProtectorId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);

        ImmutableArray<PageOffer> offers =
        [
            .. designs.Select(d => new PageOffer(
                keyOf[d.Row.Id],
                d.Protector.Design.Name,
                FusedOffers.PocketsOf(d.Protector),
                // What lies between the leaves of these parts is free to be used again.
                d.Row.Stock
                    is { } owned
                    ? Math.Max(
                        0,
                        owned - used.GetValueOrDefault(d.Row.Id) + between.Count(l => l.ProtectorId == d.Row.Id)
                    )
                    : null,
                // What the album has given up is not put in anew, but leaves that have it may keep it.
                MayBeAdded: !d.Row.Gone
            )),
        ];
        var isFixed = fixedLeaves.ConvertAll(l => l.Id).ToHashSet();
        var question = new PageQuestion(
            [.. parts.Select(p => Want.Together(p.Wants.Concat(LeftClear(p.Open))))],
            [
                .. standing.Select(l => new StandingLeaf(
                    [
                        .. new[] { l.FrontUnitId, l.BackUnitId }
                            .OfType<Guid>()
                            .Where(index.ContainsKey)
                            .Select(u => index[u]),
                    ],
                    keyOf[l.ProtectorId],
                    // What lies on it here is laid anew, but for what is locked; outside nothing is touched.
                    !new[] { l.FrontUnitId, l.BackUnitId }
                        .OfType<Guid>()
                        .Any(u =>
                            contents.TryGetValue(u, out var here)
                                ? here.HoldsOn(l.Id, locked: true)
                                : others[u].Read().HoldsOn(l.Id)
                        )
                )),
            ],
            offers,
            ChoiceWeights.Usual
        )
        {
            Room =
            [
                .. parts.Select(p =>
                    p.Open.Faces.Where(f => isFixed.Contains(f.Leaf.Id))
                        .SelectMany(f => f.Pockets.Select(k => f.Protector.CutSize(k.Pocket)))
                        .GroupBy(s => s)
                        .ToImmutableDictionary(g => g.Key, g => g.Count())
                ),
            ],
            Kept =
            [
                .. parts
                    .Select((p, u) => (p.Open.Content.KeepsItsPages, u))
                    .Where(p => p.KeepsItsPages)
                    .Select(p => p.u),
            ],
        };

        var views = new List<PageChoiceView>();
        var altered = question with
        {
            Offers =
            [
                .. offers.SelectMany(
                    (o, i) => FusedOffers.Of(o, designs[i].Protector, parts.Count == 1 ? MostFused : 1).Prepend(o)
                ),
            ],
        };
        var ways = Ways.Select(w => (w.Name, Question: question with { Weights = w.Weights })).ToList();
        if (request.Weights is { } own)
        {
            ways.Insert(0, ("Your weights", question with { Weights = own.ToWeights() }));
        }

        // Without alterations first.
        ways.Add(("Better if you fuse", altered));
        foreach (var (name, asked) in ways)
        {
            cancel.ThrowIfCancellationRequested();
            // A search takes its turn at the solver and may take seconds: on a thread of its own.
            var answer = await Task.Factory.StartNew(
                () => solver.Solve(asked, cancel),
                cancel,
                TaskCreationOptions.LongRunning,
                TaskScheduler.Default
            );
            var fused =
                answer.Parts.Sum(p => p.Extra.Sum(e => e.Leaves * FusedIn(asked, e.Key)))
                + answer.Standing.Sum(k => FusedIn(asked, k));
            if (name == "Better if you fuse" && fused == 0)
            {
                continue;
            }

            var called =
                name != "Better if you fuse"
                    ? name
                    : $"Better if you fuse {NumberWords.Of(fused)} {(fused == 1 ? "pocket" : "pockets")}";
            var view = View(called, asked, answer, parts, standing, between);
            // Two that come to the same are one choice, whatever leaf comes first.
            if (
                !views.Exists(v =>
                    (v.Leaves, v.Empty, v.CropPercent, v.Unplaced)
                        == (view.Leaves, view.Empty, view.CropPercent, view.Unplaced)
                    && v.Buy.SequenceEqual(view.Buy)
                )
            )
            {
                views.Add(view);
            }
        }

        return views;
    }

    /// <summary>Pockets that stay empty on purpose take their room as pieces do.</summary>
    private static IEnumerable<Want> LeftClear(OpenUnit open) =>
        open
            .Content.Clear.Where(c => open.CodeOf(c) is not null)
            .Select(c => open.CutSize(c))
            .Select(cut => Want.Words(WantKind.Card, "pockets left clear", [cut], _ => true));

    private static int FusedIn(PageQuestion question, string key) => question.Offers.First(o => o.Key == key).Fused;

    private static Guid ProtectorOf(PageQuestion question, string key) =>
        Guid.Parse(question.Offers.First(o => o.Key == key).Bought);

    private static PageChoiceView View(
        string name,
        PageQuestion question,
        PageAnswer answer,
        List<(OpenUnit Open, IReadOnlyList<Want> Wants)> parts,
        List<AlbumLeaf> standing,
        List<AlbumLeaf> between
    )
    {
        var nameOf = question.Offers.ToDictionary(o => o.Key, o => o.Name);
        var leaves = answer.ExtraLeaves - between.Count;
        var pictures = question
            .Parts.Select(
                (p, u) => answer.Parts[u].Spread.Where(s => p[s.Demand].Kind == WantKind.Picture).Sum(s => s.Count)
            )
            .Sum();
        var lost = question
            .Parts.Select(
                (p, u) =>
                    answer
                        .Parts[u]
                        .Spread.Where(s => p[s.Demand].Kind == WantKind.Picture)
                        .Sum(s => s.Count * p[s.Demand].Costs[s.Pocket])
            )
            .Sum();
        var crop = pictures == 0 ? 0 : Math.Round(lost / 10.0 / pictures, 1);
        var buy = answer
            .Buy.OrderBy(b => b.Key, StringComparer.Ordinal)
            .Select(b => $"{b.Value} × {nameOf[b.Key]}")
            .ToList();
        var (empty, unplaced) = (answer.Parts.Sum(p => p.Empty), answer.Parts.Sum(p => p.Unplaced));
        var says = new List<string>
        {
            leaves switch
            {
                0 => "No leaf more",
                1 => "One leaf more",
                -1 => "One leaf fewer",
                > 0 => $"{NumberWords.Of(leaves)} leaves more",
                _ => $"{NumberWords.Of(-leaves)} leaves fewer",
            },
            empty == 0 ? "no pocket stays empty" : $"{empty} {(empty == 1 ? "pocket stays" : "pockets stay")} empty",
        };
        if (pictures > 0)
        {
            says.Add(
                crop == 0
                    ? "nothing is cropped"
                    : string.Create(
                        CultureInfo.InvariantCulture,
                        $"{crop:0.#} % of the pictures is cropped away on average"
                    )
            );
        }

        if (unplaced > 0)
        {
            says.Add($"{unplaced} {(unplaced == 1 ? "piece finds" : "pieces find")} no pocket");
        }

        return new PageChoiceView(
            name,
            char.ToUpperInvariant(says[0][0]) + string.Join("; ", says)[1..] + ".",
            leaves,
            empty,
            crop,
            unplaced,
            buy,
            answer.Proved,
            Math.Round(100 * answer.Gap, 2),
            [
                .. parts.Select(
                    (p, u) =>
                        new PartChoiceView(
                            p.Open.Unit.Id,
                            p.Open.Title,
                            Why(p, u, question, answer, standing, nameOf),
                            answer.Parts[u].Pockets,
                            answer.Parts[u].Empty,
                            answer.Parts[u].Unplaced
                        )
                ),
            ],
            [
                .. standing.Select(
                    (l, i) =>
                        new LeafDesign(
                            l.Id,
                            ProtectorOf(question, answer.Standing[i]),
                            FusedIn(question, answer.Standing[i])
                        )
                ),
            ],
            [
                .. answer.Parts.SelectMany(
                    (p, u) =>
                        p.Extra.Select(e => new ExtraLeaves(
                            parts[u].Open.Unit.Id,
                            ProtectorOf(question, e.Key),
                            e.Leaves,
                            FusedIn(question, e.Key)
                        ))
                ),
            ]
        );
    }

    /// <summary>
    /// Such as: one leaf of Nine 3x4 more, because 30 pieces want pockets and its facing pages have 12.
    /// </summary>
    private static string Why(
        (OpenUnit Open, IReadOnlyList<Want> Wants) part,
        int u,
        PageQuestion question,
        PageAnswer answer,
        List<AlbumLeaf> standing,
        Dictionary<string, string> nameOf
    )
    {
        var own = standing
            .Select((l, i) => (Leaf: l, Key: answer.Standing[i], Was: question.Standing[i]))
            .Where(s => s.Was.Faces.Contains(u))
            .ToList();
        var changed = own.Where(s => s.Key != s.Was.Key)
            .Select(s => $"“{nameOf[s.Key]}” instead of “{nameOf[s.Was.Key]}”")
            .ToList();
        var extra = answer
            .Parts[u]
            .Extra.Select(e =>
                $"{NumberWords.Of(e.Leaves)} {(e.Leaves == 1 ? "leaf" : "leaves")} of “{nameOf[e.Key]}” between"
            )
            .ToList();
        if (question.Kept.Contains(u))
        {
            extra.Add("no leaf between, as it stays on its pages");
        }

        var onOwn = own.Sum(s =>
            question.Offers.First(o => o.Key == s.Was.Key).Pockets.Values.Sum() * s.Was.Faces.Count(f => f == u)
        );
        var done = changed.Concat(extra).ToList();
        var because = string.Create(
            CultureInfo.InvariantCulture,
            $"{part.Wants.Count} {(part.Wants.Count == 1 ? "piece wants a pocket" : "pieces want pockets")} and its "
                + $"own pages have {onOwn}"
        );
        return done.Count == 0
            ? $"As it is: {because}."
            : $"{char.ToUpperInvariant(done[0][0])}{string.Join(", ", done)[1..]}, because {because}.";
    }
}
