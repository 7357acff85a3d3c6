using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>When the keeper works at the album.</summary>
/// <param name="Evenings">Days of the week, each once.</param>
/// <param name="MinutesAnEvening">5 to 600.</param>
/// <param name="LagWeeks">How many weeks behind is comfortable, 0 to 52.</param>
public sealed record WorkingHabit(ImmutableArray<IsoDayOfWeek> Evenings, int MinutesAnEvening, int LagWeeks)
{
    /// <summary>Two evenings a week, one to two weeks behind. Common practice.</summary>
    public static WorkingHabit Usual { get; } = new([IsoDayOfWeek.Tuesday, IsoDayOfWeek.Sunday], 60, 2);

    /// <summary>Throws <see cref="RuleException"/> for what nobody can do.</summary>
    public WorkingHabit Checked() =>
        Evenings.Length is 0 or > 7
        || Evenings.Contains(IsoDayOfWeek.None)
        || Evenings.Distinct().Count() != Evenings.Length
            ? throw new RuleException("Choose one to seven days of the week, each once. Nothing was changed.")
        : MinutesAnEvening is < 5 or > 600
            ? throw new RuleException("An evening has 5 to 600 minutes. Nothing was changed.")
        : LagWeeks is < 0 or > 52 ? throw new RuleException("Be 0 to 52 weeks behind. Nothing was changed.")
        : this;
}
