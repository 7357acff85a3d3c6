using System.Collections.Immutable;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>A thing and the pocket it goes into: a loose photo, or a piece.</summary>
public sealed record LaidThing(Guid Key, PocketPlace Place);

/// <summary>How many of each were laid.</summary>
public sealed record LaidCounts(int Photos, int Cards, int Collages, int Others)
{
    public int All => Photos + Cards + Collages + Others;
}

/// <summary>Lays an answer into the pockets.</summary>
public static class LaidSpread
{
    /// <summary>What an answer lays anew, in reading order.</summary>
    public static ImmutableArray<LaidThing> Of(SpreadQuestion question, SpreadAnswer answer)
    {
        ArgumentNullException.ThrowIfNull(question);
        ArgumentNullException.ThrowIfNull(answer);
        return
        [
            .. question
                .Pockets.Select((pocket, i) => (pocket, At: answer.Candidates[i]))
                .Where(p => p.pocket.Stays < 0 && p.At >= 0)
                .Select(p => new LaidThing(question.Candidates[p.At].Key, p.pocket.Place)),
        ];
    }

    /// <summary>
    /// The content with everything laid, none of it locked. Throws <see cref="RuleException"/> when something is not
    /// here any more, or a pocket is taken.
    /// </summary>
    public static (UnitContent Content, LaidCounts Counts) Lay(
        UnitDesk desk,
        IEnumerable<LaidThing> things,
        Func<Guid> newId
    )
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(things);
        ArgumentNullException.ThrowIfNull(newId);
        var (content, counts) = (desk.Content, new LaidCounts(0, 0, 0, 0));
        foreach (var (key, place) in things)
        {
            desk.Require(place);
            if (content.At(place) is not null)
            {
                throw new RuleException($"{desk.Pages.CodeOf(place)} is taken by now. Nothing was changed.");
            }

            if (content.Find(key) is { } piece)
            {
                desk.Admit(piece, place);
                content = content.Put(key, place);
                counts = piece switch
                {
                    Card => counts with { Cards = counts.Cards + 1 },
                    Collage => counts with { Collages = counts.Collages + 1 },
                    _ => counts with { Others = counts.Others + 1 },
                };
            }
            else
            {
                content = content.PutPhoto(key, place, newId(), desk.RequirePhoto(key).Around);
                counts = counts with { Photos = counts.Photos + 1 };
            }

            content = content.Lock(place, locked: false);
        }

        return (content, counts);
    }
}
