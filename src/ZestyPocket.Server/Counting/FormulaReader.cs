using System.Collections.Immutable;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

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

/// <summary>How one part of a stretch stands to its formula.</summary>
/// <param name="Missing">What is below the minimum; empty when nothing is.</param>
/// <param name="Beyond">Where extra leaves come in; empty when none do.</param>
public sealed record FormulaPart(Guid UnitId, string Title, string Formula, string Missing, string Beyond);

/// <summary>Reads an album's formulas, learns them from finished parts and says which parts keep to theirs.</summary>
public sealed class FormulaReader(AlbumReader albums, UnitOpener opener, CountReader counts)
{
    public async Task<IReadOnlyList<FormulaView>> ListAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var formulas = album.ReadFormulas();
        return [.. formulas.All.Select(f => View(album, f, formulas.Follows.Values.Count(id => id == f.Id)))];
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
            throw new RuleException("That week or day has no pages to learn from. Nothing was changed.");
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
        foreach (var id in await albums.StretchAsync(albumId, from, count, PageChoosing.MostUnits, cancel))
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
}
