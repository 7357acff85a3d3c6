using ZestyPocket.Core.Binder.Edits;

namespace ZestyPocket.Core.Binder;

/// <summary>
/// The album that goes on where another ends: the same pages, measures, styles, hand, people, formulas, rings and
/// evenings, with empty weeks or days and nothing of what happened.
/// </summary>
public static class NextAlbum
{
    /// <summary>The album with its empty units. Throws <see cref="RuleException"/> for one without any.</summary>
    /// <param name="name">What it is called.</param>
    public static AlbumDesk After(AlbumDesk desk, string name, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(desk);
        if (desk.Binder.Units.IsEmpty)
        {
            throw new RuleException("This album has no weeks or days yet: there is nothing to go on from.");
        }

        var owned = desk.Binder.Protectors.Where(p => !p.GivenUp).ToList();
        // Pages of the kind that most leaves are of come first.
        var usual = desk
            .Binder.Leaves.GroupBy(l => l.ProtectorId)
            .OrderByDescending(g => g.Count())
            .Select(g => g.Key)
            .FirstOrDefault(id => owned.Exists(p => p.Id == id && p.Protector.Form.Kind == Pages.LeafKind.Pockets));
        var made = new NewAlbum(
            name,
            desk.Calendar with
            {
                FirstDay = desk.Binder.Units.Max(u => u.Dates.Last).PlusDays(1),
                Stays = [],
            },
            desk.Binder.Units.Length,
            desk.Binder.FacesPerUnit,
            [
                .. owned
                    .Where(p => p.Protector.Design.Body == desk.Binder.Body)
                    .OrderByDescending(p => p.Id == usual)
                    .Select(p => p.Protector),
            ],
            desk.Measures,
            desk.Binder.School
        ).Made(newId);
        return made with
        {
            Words = desk.Words with
            {
                PassedOver = [],
                // A finding of a week stays with its week; a rule the keeper is content with holds on.
                Accepted = [.. desk.Words.Accepted.Where(a => !a.Contains(' ', StringComparison.Ordinal))],
                // The same sheets of letters, with what is left on them.
                Sheets = [.. desk.Words.Sheets.Select(s => s with { Sheet = s.Left(), Spelt = [] })],
            },
            Formulas = desk.Formulas,
            Keeping = desk.Keeping with { VolumeStarts = [], Timed = [] },
        };
    }

    /// <summary>What it would be called: a year in the name counts on, else the name is “…, continued”.</summary>
    public static string NameAfter(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        for (var at = 0; at + 4 <= name.Length; at++)
        {
            if (
                int.TryParse(name.AsSpan(at, 4), System.Globalization.NumberStyles.None, null, out var year)
                && year is >= 1900 and < 2200
                && (at == 0 || !char.IsDigit(name[at - 1]))
                && (at + 4 == name.Length || !char.IsDigit(name[at + 4]))
            )
            {
                return string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"{name[..at]}{year + 1}{name[(at + 4)..]}"
                );
            }
        }

        const string More = ", continued";
        return name[..Math.Min(name.Length, RenameAlbum.Longest - More.Length)] + More;
    }
}
