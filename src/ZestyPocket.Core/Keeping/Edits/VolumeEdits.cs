using System.Collections.Immutable;
using ZestyPocket.Core.Binder.Edits;

namespace ZestyPocket.Core.Keeping.Edits;

/// <summary>
/// Says which units further volumes begin with; none for an album in one volume. A volume begins with a title page on a
/// leaf of its own: the pages are handed out again in reading order, their pieces with them.
/// </summary>
public sealed record SetVolumes(ImmutableArray<Guid> StartWith) : WholeAlbumEdit
{
    public override string Label() => "Set the volumes";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var binder = desk.Binder;
        if (StartWith.Any(id => binder.Require(id) == binder.Units[0]))
        {
            throw new RuleException("The first volume begins with the album itself. Nothing was changed.");
        }

        var starts = StartWith.Distinct().ToImmutableArray();
        var faces = binder.Faces();
        return new AlbumEdited(
            desk with
            {
                Keeping = desk.Keeping with { VolumeStarts = starts },
                Binder = (binder with { VolumeStarts = starts }).Lay(faces, u => faces[u.Id].Length, tools.NewId),
            },
            starts.IsEmpty ? "Put the album into one volume" : $"Split the album into {starts.Length + 1} volumes"
        )
        {
            AlsoIn = [.. starts],
        };
    }
}
