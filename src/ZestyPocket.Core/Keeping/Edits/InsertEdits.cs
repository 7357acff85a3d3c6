using ZestyPocket.Core.Binder.Edits;

namespace ZestyPocket.Core.Keeping.Edits;

/// <summary>
/// Binds an album of its own, such as a trip, into this one behind a week or day. It keeps its weeks, pictures and
/// pages; its leaves count in this binder and its pages in this book.
/// </summary>
/// <param name="AlbumId">Of the same keeper; the same once more moves it.</param>
/// <param name="Between">Between the facing pages of that week or day instead of behind it.</param>
public sealed record InsertAlbum(Guid AlbumId, Guid AfterUnitId, bool Between = false) : KeepingEdit
{
    private const int MostInserts = 60;

    public override string Label() => "Insert an album";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var unit = desk.Binder.Require(AfterUnitId);
        if (Between && InsertPlace.BetweenPages(desk.Binder.Leaves, AfterUnitId) is null)
        {
            throw new RuleException(
                $"{desk.TitleOf(unit)} has no facing pages on two leaves to put anything between. Nothing was changed: "
                    + "insert the album after it."
            );
        }

        var others = desk.Keeping.Inserts.RemoveAll(i => i.AlbumId == AlbumId);
        return others.Length < MostInserts
            ? (
                desk.Keeping with
                {
                    Inserts = others.Add(new AlbumInsert(AlbumId, AfterUnitId) { Between = Between }),
                },
                Between
                    ? $"Inserted an album between the pages of {desk.TitleOf(unit)}"
                    : $"Inserted an album after {desk.TitleOf(unit)}"
            )
            : throw new RuleException($"An album holds {MostInserts} others at most. Nothing was changed.");
    }
}

/// <summary>Makes an inserted album one of its own again. Nothing in it changes.</summary>
public sealed record RemoveInsert(Guid AlbumId) : KeepingEdit
{
    public override string Label() => "Remove an insert";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return (
            desk.Keeping with
            {
                Inserts = desk.Keeping.Inserts.RemoveAll(i => i.AlbumId == AlbumId),
            },
            "Made an inserted album one of its own again"
        );
    }
}
