using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>Where an album that is inserted into another one best begins.</summary>
public static class InsertPlace
{
    /// <summary>
    /// Behind the unit that its first day falls into, so that the week is read first and the trip after it; at the end
    /// when its days come later, and null when they come before the first unit. Common practice.
    /// </summary>
    /// <param name="units">Of the album it goes into, in their order.</param>
    /// <param name="firstDay">Of the album that is inserted.</param>
    public static Guid? For(IEnumerable<(Guid Id, LocalDate First, LocalDate Last)> units, LocalDate firstDay)
    {
        ArgumentNullException.ThrowIfNull(units);
        return units.Where(u => u.First <= firstDay).Select(u => (Guid?)u.Id).LastOrDefault();
    }
}
