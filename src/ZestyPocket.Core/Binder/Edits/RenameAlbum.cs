using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>Gives the album another name.</summary>
public sealed record RenameAlbum(string Name) : WholeAlbumEdit
{
    /// <summary>In characters.</summary>
    public const int Longest = 200;

    public override string Label() => "Rename the album";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > Longest)
        {
            throw new RuleException(
                $"An album needs a name of at most {Longest} characters. It is still called “{desk.Name}”."
            );
        }

        var name = PlainWords.Name(Name);
        return new AlbumEdited(desk with { Name = name }, $"Named the album “{name}”") { AlsoIn = EveryUnit(desk) };
    }
}
