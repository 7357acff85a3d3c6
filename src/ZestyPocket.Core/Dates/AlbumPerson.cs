using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>Somebody the album is about; ages are computed from the birthday, never typed.</summary>
/// <param name="Name">As the album spells it, 1 to 80 characters.</param>
/// <param name="Born">Null when it is nobody's business.</param>
public sealed record AlbumPerson(string Name, LocalDate? Born)
{
    public const int Most = 60;

    /// <summary>Throws <see cref="RuleException"/> for a name that is none.</summary>
    public AlbumPerson Checked() =>
        string.IsNullOrWhiteSpace(Name) || Name.Length > 80
            ? throw new RuleException("Everybody needs a name of at most 80 characters. Nothing was changed.")
            : this with
            {
                Name = Name.Trim(),
            };
}
