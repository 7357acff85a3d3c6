using System.Collections.Immutable;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Server.Placing;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Counting;

/// <summary>A formula as it is written.</summary>
/// <param name="Id">Null for a new one.</param>
/// <param name="Own">Makes of a part's own pages, which alternate.</param>
/// <param name="Between">Makes of the leaves between them.</param>
public sealed record FormulaRequest(
    Guid? Id,
    string Name,
    IReadOnlyList<Guid> Own,
    IReadOnlyList<Guid> Between,
    int Pictures,
    int Words,
    bool Title
);

/// <summary>A formula, what it says in words, and how many parts follow it.</summary>
public sealed record FormulaView(
    Guid Id,
    string Name,
    IReadOnlyList<Guid> Own,
    IReadOnlyList<Guid> Between,
    int Pictures,
    int Words,
    bool Title,
    string Says,
    int Followers
);

/// <summary>Gives the pages of a stretch the pattern of a formula.</summary>
public sealed record ApplyFormulaRequest(Guid From, int Count, bool? Preview = null);

/// <summary>How one part of a stretch stands to its formula.</summary>
/// <param name="Missing">What is below the minimum; empty when nothing is.</param>
/// <param name="Beyond">Where extra leaves come in; empty when none do.</param>
public sealed record FormulaPart(Guid UnitId, string Title, string Formula, string Missing, string Beyond);

/// <summary>Keeps an album's formulas, learns them from finished parts and applies them.</summary>
public sealed class FormulaEditor(
    AlbumReader albums,
    Binder binder,
    UnitOpener opener,
    CountReader counts,
    History history,
    ICurrentKeeper keeper
)
{
    public async Task<IReadOnlyList<FormulaView>> ListAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var formulas = album.ReadFormulas();
        return [.. formulas.All.Select(f => View(album, f, formulas.Follows.Values.Count(id => id == f.Id)))];
    }

    public async Task<LeavesAnswer> KeepAsync(Guid albumId, FormulaRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        await binder.LoadAsync(albumId, cancel);
        var formula = new Formula(
            request.Id ?? Guid.CreateVersion7(),
            request.Name,
            [.. request.Own],
            [.. request.Between],
            request.Pictures,
            request.Words,
            request.Title
        ).Checked();
        foreach (var id in formula.Own.Concat(formula.Between))
        {
            if (!binder.Album.Protectors.Exists(p => p.Id == id))
            {
                throw new RuleException("A formula is made of leaves that the album uses. Nothing was changed.");
            }
        }

        if (formula.Own.Any(id => binder.ProtectorOf(id).Form.Kind != LeafKind.Pockets))
        {
            throw new RuleException(
                "A part's own pages are pages of pockets; pages outside the pockets and dividers go between them. "
                    + "Nothing was changed."
            );
        }

        history.Touch([binder.Album]);
        binder.Album.WriteFormulas(binder.Album.ReadFormulas().With(formula));
        return await SaveAsync($"Kept the formula “{formula.Name}”", cancel);
    }

    public async Task<LeavesAnswer> DropAsync(Guid albumId, Guid formulaId, CancellationToken cancel)
    {
        await binder.LoadAsync(albumId, cancel);
        var formula = Require(binder.Album, formulaId);
        history.Touch([binder.Album]);
        binder.Album.WriteFormulas(binder.Album.ReadFormulas().Without(formulaId));
        return await SaveAsync($"Threw the formula “{formula.Name}” away; the pages stay as they are", cancel);
    }

    /// <summary>
    /// The formula that a finished part is an example of: its pages, and what lies on them. Nothing is kept yet.
    /// </summary>
    public async Task<FormulaView> LearnAsync(Guid albumId, Guid unitId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var open = await opener.OpenAsync(unitId, cancel);
        if (open.Unit.AlbumId != albumId || open.Faces.Count == 0)
        {
            throw new RuleException("That part of the album has no pages to learn from. Nothing was changed.");
        }

        var own = new[] { open.Faces[0], open.Faces[^1] }
            .Select(f => f.ProtectorRow.Id)
            .Distinct()
            .Where(id => album.Protectors.Exists(p => p.Id == id && p.ToProtector().Form.Kind == LeafKind.Pockets))
            .ToImmutableArray();
        var between = open
            .Faces.GroupBy(f => f.Leaf.Id)
            .Where(g => g.Count() == 2)
            .Select(g => g.First())
            .Where(f => album.School == PageSchool.Spread || f.Leaf.Id != open.Faces[0].Leaf.Id)
            .Select(f => f.ProtectorRow.Id)
            .ToImmutableArray();
        var formula = new Formula(
            Guid.Empty,
            $"Like {open.Title}",
            own,
            between,
            open.Content.PhotosPlaced.Count > 0 ? open.Content.PhotosPlaced.Count : open.Photos.Count,
            open.Content.CardsOfWords.Count(),
            open.Content.HasTitle
        ).Checked();
        return View(album, formula, 0);
    }

    /// <summary>
    /// Gives the pages of a stretch the pattern: the designs of their own leaves, the leaves between in their order,
    /// and extra leaves where there is more than the pattern holds. Leaves on which something is locked, or which a
    /// neighbour outside the stretch has filled, stay.
    /// </summary>
    public async Task<LeavesAnswer> ApplyAsync(
        Guid albumId,
        Guid formulaId,
        ApplyFormulaRequest request,
        LeafEditor leaves,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(leaves);
        var stretch = await albums.StretchAsync(albumId, request.From, request.Count, PageChooser.MostUnits, cancel);
        var pieces = new Dictionary<Guid, int>();
        foreach (var id in stretch)
        {
            pieces[id] = (await counts.WantsAsync(await opener.OpenAsync(id, cancel), cancel)).Count;
        }

        await binder.LoadAsync(albumId, cancel);
        var formula = Require(binder.Album, formulaId);
        var before = BinderShot.Of(binder);
        var stayed = 0;
        for (var i = 0; i < stretch.Count; i++)
        {
            var unit = binder.Units.Find(u => u.Id == stretch[i])!;
            if (binder.Faces[unit.Id].Count == 0)
            {
                continue;
            }

            // A leaf that carries two parts has the make of the part that follows it.
            stayed += leaves.Redesign(binder.Faces[unit.Id][0].LeafId, formula.OwnOf(i), stretch) ? 0 : 1;
            if (i == stretch.Count - 1)
            {
                stayed += leaves.Redesign(
                    binder.Faces[unit.Id][^1].LeafId,
                    formula.OwnOf(binder.Album.School == PageSchool.Spread ? i + 1 : i),
                    stretch
                )
                    ? 0
                    : 1;
            }

            leaves.Pattern(unit, formula.Between);
        }

        for (var i = 0; i < stretch.Count; i++)
        {
            var unit = binder.Units.Find(u => u.Id == stretch[i])!;
            leaves.Grow(unit, formula.OwnOf(i), pieces[unit.Id]);
        }

        history.Touch([binder.Album]);
        var formulas = binder.Album.ReadFormulas();
        binder.Album.WriteFormulas(
            formulas with
            {
                Follows = formulas.Follows.SetItems(stretch.Select(id => KeyValuePair.Create(id, formulaId))),
            }
        );
        var kept =
            stayed == 0
                ? string.Empty
                : $"; {stayed} {(stayed == 1 ? "leaf keeps" : "leaves keep")} what lies locked on "
                    + $"{(stayed == 1 ? "it" : "them")}";
        return await leaves.SaveFormulaAsync(
            $"Gave {(stretch.Count == 1 ? "one part" : $"{stretch.Count} parts")} the formula “{formula.Name}”{kept}",
            stretch,
            before,
            request.Preview == true,
            cancel
        );
    }

    /// <summary>
    /// For each part of a stretch that follows a formula: what it lacks, and where extra leaves come in.
    /// </summary>
    public async Task<IReadOnlyList<FormulaPart>> StandAsync(
        Guid albumId,
        Guid from,
        int count,
        CancellationToken cancel
    )
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var formulas = album.ReadFormulas();
        var parts = new List<FormulaPart>();
        foreach (var id in await albums.StretchAsync(albumId, from, count, PageChooser.MostUnits, cancel))
        {
            if (formulas.Of(id) is null)
            {
                continue;
            }

            var view = await counts.CountAsync(id, cancel);
            parts.Add(new FormulaPart(id, view.Title, view.Formula!.Name, view.Formula.Missing, view.Formula.Beyond));
        }

        return parts;
    }

    private static Formula Require(Album album, Guid id) =>
        album.ReadFormulas().All.FirstOrDefault(f => f.Id == id) ?? throw new MissingException("The formula");

    private static FormulaView View(Album album, Formula formula, int followers)
    {
        var names = album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector().Design.Name);
        string Name(Guid id) => names.TryGetValue(id, out var name) ? $"“{name}”" : "a leaf that is gone";
        var says = new List<string>
        {
            $"own pages of {string.Join(" and ", formula.Own.Select(Name))}"
                + $"{(formula.Own.Length > 1 ? ", in turn" : string.Empty)}",
        };
        if (!formula.Between.IsEmpty)
        {
            says.Add($"between them {string.Join(", ", formula.Between.Select(Name))}");
        }

        says.Add(
            $"at least {formula.Pictures} {(formula.Pictures == 1 ? "picture" : "pictures")} and {formula.Words} "
                + $"{(formula.Words == 1 ? "card" : "cards")} of "
                + $"words{(formula.Title ? ", with a title card" : string.Empty)}"
        );
        return new FormulaView(
            formula.Id,
            formula.Name,
            formula.Own,
            formula.Between,
            formula.Pictures,
            formula.Words,
            formula.Title,
            string.Join("; ", says),
            followers
        );
    }

    private async Task<LeavesAnswer> SaveAsync(string done, CancellationToken cancel) =>
        new(
            done,
            await history.SaveAsync(binder.Album.Id, keeper.Id, done, binder.Units.Select(u => u.Id), cancel),
            []
        );
}
