using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Binder;

/// <summary>A design of the keeper's own collection.</summary>
public sealed record OwnDesignView(Guid Id, int Revision, string Notation, DesignView Design);

/// <summary>What an edit of the collection did, and the design in hand afterwards.</summary>
public sealed record DesignEditAnswer(string Done, OwnDesignView Design);

/// <summary>A draft, and what to do to it: part a pocket, merge pockets, or nothing.</summary>
public sealed record DraftRequest(
    string Notation,
    DraftSplitRequest? Split = null,
    IReadOnlyList<string>? Merge = null
);

/// <summary>Parts of a pocket from left or top, as written; they add up to it.</summary>
public sealed record DraftSplitRequest(string Key, bool Upright, IReadOnlyList<string> Parts);

/// <summary>A design being drawn.</summary>
/// <param name="Name">What it would be called by what it holds.</param>
/// <param name="Pockets">With the ways to part each.</param>
public sealed record DraftView(
    string Notation,
    string Name,
    string Body,
    long BodyWidth,
    long BodyHeight,
    IReadOnlyList<DraftPocketView> Pockets
);

public sealed record DraftPocketView(
    string Key,
    string Size,
    bool Bought,
    long X,
    long Y,
    long Width,
    long Height,
    IReadOnlyList<DraftSplitView> Splits
);

/// <summary>A way to part a pocket, such as <c>3x4 | 6x4</c>.</summary>
public sealed record DraftSplitView(string Label, bool Upright, IReadOnlyList<string> Parts, bool Bought);

public sealed record ImportDesignsRequest(string Text);

/// <summary>The keeper's collection of page designs, and drawing one.</summary>
public static class DesignEndpoints
{
    public static void MapDesigns(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/designs").WithTags("Pages");
        group
            .MapGet(
                "",
                async (DesignShelf shelf, CancellationToken cancel) =>
                    (await shelf.LoadAsync(cancel)).Select(d => View(d.Read())).ToList()
            )
            .WithName("listDesigns")
            .WithProblems();
        group
            .MapPost(
                "/edits",
                async (DesignEdit edit, DesignEditor editor, CancellationToken cancel) =>
                {
                    var edited = await editor.ApplyAsync(edit, cancel);
                    return new DesignEditAnswer(edited.Done, View(edited.Design));
                }
            )
            .WithName("editDesigns")
            .WithProblems();
        group
            .MapPost("/draft", (DraftRequest request) => View(Changed(request)))
            .WithName("draftDesign")
            .WithProblems();
        group
            .MapGet(
                "/export",
                async (DesignShelf shelf, CancellationToken cancel) =>
                    Results.Text(
                        DesignFile.Write((await shelf.LoadAsync(cancel)).Select(d => d.Read())),
                        "application/json"
                    )
            )
            .WithName("exportDesigns")
            .Produces<string>(contentType: "application/json")
            .WithProblems();
        group
            .MapPost(
                "/import",
                (ImportDesignsRequest request, DesignEditor editor, CancellationToken cancel) =>
                    editor.ImportAsync(request.Text, cancel)
            )
            .WithName("importDesigns")
            .WithProblems();
    }

    private static DesignDraft Changed(DraftRequest request)
    {
        var draft = DesignDraft.Read(request.Notation);
        return request switch
        {
            { Split: { } split } => draft.Split(
                split.Key,
                split.Upright,
                [.. split.Parts.Select(MeasureText.ParseLength)]
            ),
            { Merge: { } keys } => draft.Merge(keys),
            _ => draft,
        };
    }

    private static OwnDesignView View(OwnDesign own) =>
        new(
            own.Id,
            own.Revision,
            own.Notation,
            DesignView.Of(PageDesign.FromNotation(KeeperDesign.KeyOf(own.Id), own.Name, own.Notation))
        );

    private static DraftView View(DesignDraft draft) =>
        new(
            draft.Notation,
            DesignDraft.NameOf(draft.Pockets),
            draft.Body.ToString(),
            draft.Body.Width.Emu,
            draft.Body.Height.Emu,
            [
                .. draft
                    .Pockets.OrderBy(p => p.Bounds.Y)
                    .ThenBy(p => p.Bounds.X)
                    .Select(p => new DraftPocketView(
                        p.Key,
                        p.Nominal.ToString(),
                        DesignDraft.BoughtSizes.Contains(p.Nominal),
                        p.Bounds.X.Emu,
                        p.Bounds.Y.Emu,
                        p.Bounds.Width.Emu,
                        p.Bounds.Height.Emu,
                        [
                            .. draft
                                .SplitsOf(p.Key)
                                .Take(12)
                                .Select(s => new DraftSplitView(
                                    string.Join(
                                        s.Upright ? " | " : " / ",
                                        s.Parts.Select(part =>
                                            MeasureText.ShortName(
                                                s.Upright
                                                    ? new Size(part, p.Nominal.Height)
                                                    : new Size(p.Nominal.Width, part)
                                            )
                                        )
                                    ),
                                    s.Upright,
                                    [.. s.Parts.Select(part => MeasureText.Exact(part, MeasureSystem.Inches))],
                                    s.Bought
                                )),
                        ]
                    )),
            ]
        );
}
