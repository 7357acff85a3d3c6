using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>What kind of thing lies in the stash.</summary>
public enum StashKind
{
    Card,
    Paper,
    Sticker,
    Letters,
    Protector,
    Rings,
    Other,
}

/// <summary>What a week or day takes of an item.</summary>
/// <param name="Reserved">Set aside, still in the stash.</param>
/// <param name="Used">Taken out of the stash.</param>
public sealed record StashClaim(Guid UnitId, int Reserved, int Used);

/// <summary>Where an item is seen: a photo, of which it may be a part.</summary>
/// <param name="Sha256">The photo in the vault.</param>
public sealed record StashPicture(ContentHash Sha256, CardCorners Corners);

/// <summary>Something that was bought or saved, as often as there is one like it.</summary>
/// <param name="Count">How many lie in the stash, with those set aside and without those used.</param>
public sealed record StashItem(Guid Id, StashKind Kind, string Name, int Count)
{
    /// <summary>Such as <c>autumn</c>; may be empty.</summary>
    public string Theme { get; init; } = "";

    /// <summary>The kit or pack it came in; may be empty.</summary>
    public string Kit { get; init; } = "";

    /// <summary>Where it lies, such as <c>blue box, second drawer</c>; may be empty.</summary>
    public string Place { get; init; } = "";

    /// <summary>Null when nobody measured it.</summary>
    public Size? Size { get; init; }

    /// <summary>Up to five, the largest share first; empty when nobody said.</summary>
    public ImmutableArray<PaletteColour> Colours { get; init; } = [];

    /// <summary>Of one; null when nobody said.</summary>
    public Money? Price { get; init; }

    public StashPicture? Picture { get; init; }

    /// <summary>The letters that are left on a sheet of them.</summary>
    public AlphaSheet? Letters { get; init; }

    /// <summary>One for each week or day that reserved or used some, in the order they came.</summary>
    public ImmutableArray<StashClaim> Claims { get; init; } = [];

    /// <summary>Grows by one with every change.</summary>
    public int Revision { get; init; }

    /// <summary>It can be brought back.</summary>
    public bool Deleted { get; init; }

    public int Reserved => Claims.Sum(c => c.Reserved);

    public int Used => Claims.Sum(c => c.Used);

    /// <summary>How many nobody has set aside.</summary>
    public int Free => Count - Reserved;

    public StashClaim ClaimOf(Guid unitId) => Claims.FirstOrDefault(c => c.UnitId == unitId) ?? new(unitId, 0, 0);

    /// <summary>Sets some aside for a week or day. Throws <see cref="RuleException"/> when there are too few.</summary>
    public StashItem Reserve(Guid unitId, int count)
    {
        var claim = ClaimOf(unitId);
        return OneOrMore(count) <= Free
            ? With(claim with { Reserved = claim.Reserved + count })
            : throw TooFew($"{NumberWords.Counted(Free, "piece")} free", count);
    }

    /// <summary>Takes some out: first those that the week or day has set aside, then free ones.</summary>
    public StashItem Use(Guid unitId, int count)
    {
        var claim = ClaimOf(unitId);
        var reserved = Math.Min(claim.Reserved, OneOrMore(count));
        return count - reserved <= Free
            ? With(new StashClaim(unitId, claim.Reserved - reserved, claim.Used + count)) with
            {
                Count = Count - count,
            }
            : throw TooFew($"{NumberWords.Counted(Free + claim.Reserved, "piece")} for it", count);
    }

    /// <summary>Puts some back: first those that are only set aside, then those that were taken out.</summary>
    public StashItem Return(Guid unitId, int count)
    {
        var claim = ClaimOf(unitId);
        var reserved = Math.Min(claim.Reserved, OneOrMore(count));
        var used = count - reserved;
        return used <= claim.Used
            ? With(new StashClaim(unitId, claim.Reserved - reserved, claim.Used - used)) with
            {
                Count = Count + used,
            }
            : throw TooFew($"only {claim.Reserved + claim.Used} taken for it", count);
    }

    /// <summary>Takes letters off a sheet for some words, which are used up unless they are stamps.</summary>
    public StashItem Spell(string words) =>
        Letters is { } sheet
            ? this with
            {
                Letters = sheet.After(words),
            }
            : throw new RuleException($"“{Name}” is no sheet of letters. Nothing was used.");

    private StashItem With(StashClaim claim)
    {
        var at = Claims.IndexOf(ClaimOf(claim.UnitId));
        var isNone = claim is { Reserved: 0, Used: 0 };
        return this with
        {
            Claims =
                at < 0 ? Claims.Add(claim)
                : isNone ? Claims.RemoveAt(at)
                : Claims.SetItem(at, claim),
        };
    }

    private RuleException TooFew(string there, int count) =>
        new(
            $"Of “{Name}” there is {there}, and {NumberWords.Counted(count, "piece")} were asked for. Nothing was "
                + "changed."
        );

    private static int OneOrMore(int count) =>
        count is >= 1 and <= StashEntry.Most
            ? count
            : throw new RuleException($"Take 1 to {StashEntry.Most} pieces at once. Nothing was changed.");
}
