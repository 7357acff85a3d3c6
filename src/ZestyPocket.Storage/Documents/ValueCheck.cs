using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Documents;

/// <summary>
/// Looks through a value that came from outside, member by member, for what no part of the program would ever have
/// written: nothing where something must be, numbers without end, lengths longer than a room, years beyond all
/// calendars, names of enumerations that are none. The type of each member says what it may hold, so a member that is
/// added is looked at by itself.
/// </summary>
public static class ValueCheck
{
    /// <summary>Ten metres in EMU: nothing that is printed or bound is longer.</summary>
    private const long LongestEmu = 10_000L * 36_000;

    private const double LargestNumber = 1e12;

    private const int FirstYear = 1000;

    private const int LastYear = 2999;

    private const int Deepest = 40;

    private static readonly ConcurrentDictionary<Type, (PropertyInfo Property, bool MayBeNull)[]> Members = [];

    /// <summary>What is wrong with a value, such as <c>Pieces.Cells is missing</c>; null when nothing is.</summary>
    public static string? Problem(object? value) => Problem(value, value?.GetType().Name ?? "The value", 0);

    private static string? Problem(object? value, string name, int depth) =>
        value switch
        {
            _ when depth > Deepest => $"{name} is nested too deeply",
            null => $"{name} is missing",
            string or bool or Guid or DateTimeZone or ContentHash => null,
            double number => double.IsFinite(number) && Math.Abs(number) <= LargestNumber ? null : Beyond(name),
            Length length => Math.Abs(length.Emu) <= LongestEmu ? null : Beyond(name),
            LocalDate date => InYears(date.Year, name),
            LocalDateTime time => InYears(time.Year, name),
            // What has no day stands at the end of all time.
            Instant instant => instant == AlbumDays.Last ? null : InYears(instant.InUtc().Year, name),
            Enum kind => Enum.IsDefined(kind.GetType(), kind) ? null : $"{name} is of no kind that is known",
            decimal or LocalTime or Offset => null,
            _ when value.GetType().IsPrimitive => null,
            IDictionary all => All(all.Keys, name, depth) ?? All(all.Values, name, depth),
            IEnumerable all => IsDefault(value) ? $"{name} is missing" : All(all, name, depth),
            _ => MembersOf(value, name, depth),
        };

    private static string? All(IEnumerable all, string name, int depth)
    {
        foreach (var one in all)
        {
            if (Problem(one, name, depth + 1) is { } problem)
            {
                return problem;
            }
        }

        return null;
    }

    private static string? MembersOf(object value, string name, int depth)
    {
        foreach (var (property, mayBeNull) in Members.GetOrAdd(value.GetType(), Of))
        {
            var member = property.GetValue(value);
            if (!(member is null && mayBeNull) && Problem(member, $"{name}.{property.Name}", depth + 1) is { } problem)
            {
                return problem;
            }
        }

        return null;
    }

    /// <summary>What a value holds, without what it works out of that.</summary>
    private static (PropertyInfo Property, bool MayBeNull)[] Of(Type type)
    {
        var nullability = new NullabilityInfoContext();
        return
        [
            .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                .Where(p => p is { CanRead: true, CanWrite: true } && p.GetIndexParameters().Length == 0)
                .Select(p =>
                    (
                        p,
                        Nullable.GetUnderlyingType(p.PropertyType) is not null
                            || (
                                !p.PropertyType.IsValueType
                                && nullability.Create(p).ReadState == NullabilityState.Nullable
                            )
                    )
                ),
        ];
    }

    /// <summary>An immutable array that nobody made has no members to ask.</summary>
    private static bool IsDefault(object value) =>
        value.GetType() is { IsGenericType: true } type
        && type.GetGenericTypeDefinition() == typeof(System.Collections.Immutable.ImmutableArray<>)
        && (bool)type.GetProperty("IsDefault")!.GetValue(value)!;

    private static string? InYears(int year, string name) => year is >= FirstYear and <= LastYear ? null : Beyond(name);

    private static string Beyond(string name) => $"{name} is beyond all bounds";
}
