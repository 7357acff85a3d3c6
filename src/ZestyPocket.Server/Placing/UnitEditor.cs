using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Placing;

/// <summary>
/// Carries one edit of a unit out and keeps it in the history: loads the unit, lets the core make the edit, saves what
/// was touched.
/// </summary>
public sealed class UnitEditor(
    UnitOpener opener,
    History history,
    ICurrentKeeper keeper,
    FontShelf fonts,
    PairEditor pairs,
    StoryFitting stories
)
{
    /// <summary>How often an edit is tried when others save at the same moment.</summary>
    private const int MostTries = 20;

    /// <summary>
    /// Does the edit or throws and changes nothing. Returns what was done, in words, and the piece in hand.
    /// </summary>
    public async Task<(string Done, Guid? PieceId)> ApplyAsync(Guid unitId, UnitEdit edit, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(edit);
        for (var tries = 1; ; tries++)
        {
            try
            {
                return await TryAsync(unitId, edit, cancel);
            }
            catch (StaleRevisionException race) when (race.Raced && tries < MostTries)
            {
                // Somebody saved in between: what does not touch theirs goes through on top of it.
                history.Forget();
            }
        }
    }

    private async Task<(string Done, Guid? PieceId)> TryAsync(Guid unitId, UnitEdit edit, CancellationToken cancel)
    {
        var open = await opener.OpenAsync(unitId, cancel);
        switch (edit)
        {
            case MovePiece move
                when open.Content.PlacementOf(move.PieceId) is { } lies && MovesAPair(open, lies.Place, move):
                // Over several weeks at once: on exactly what was seen.
                await history.RequireAsync(open.Unit, edit.Revision, edit.Label(), cancel);
                return await pairs.MoveAsync(open, move.PieceId, lies.Place, open.Desk.Require(move.Place), cancel);
            case ContentEdit content:
                await history.MergeAsync(open.Unit, edit.Revision, edit.Label(), cancel);
                return await ChangeAsync(open, content, cancel);
            default:
                throw new NotSupportedException($"There is nobody for {edit.GetType().Name}.");
        }
    }

    private async Task<(string Done, Guid? PieceId)> ChangeAsync(
        OpenUnit open,
        ContentEdit edit,
        CancellationToken cancel
    )
    {
        var (content, done, piece) = edit.Apply(open.Desk, new EditTools(Guid.CreateVersion7, fonts));
        history.Touch([open.Unit]);
        open.Unit.Write(content);
        var told = CardsChangeSize(open, content) ? await stories.FitAgainInAsync([open.Unit], cancel) : [];
        await history.SaveAsync(open.Album.Id, keeper.Id, done, told.Prepend(open.Unit.Id), cancel);
        return (done, piece);
    }

    private static bool MovesAPair(OpenUnit open, PocketPlace from, MovePiece move) =>
        open.IsStuck(from) || open.IsStuck(move.Place);

    /// <summary>Whether a card of a story is cut to another size after an edit: then the story is set anew.</summary>
    internal static bool CardsChangeSize(OpenUnit open, UnitContent content) =>
        content
            .Pieces.OfType<Card>()
            .Any(c =>
                c.StoryId is not null
                && (
                    open.Content.Find(c.Id) is not { } before
                    || open.RoomOf(before) != open.Desk.Pages.RoomOf(content, c)
                )
            );
}
