using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using ZestyPocket.Core;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// Lists in requests have no missing entries: the reader of JSON checks fields for null, but not what is in a list.
/// </summary>
internal static class NoMissingEntries
{
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Known = new();

    /// <summary>Looks through every argument of an endpoint that came out of a body.</summary>
    public static ValueTask<object?> CheckAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        foreach (var argument in context.Arguments)
        {
            if (argument is not null && IsRequest(argument.GetType()))
            {
                Check(argument, "the request");
            }
        }

        return next(context);
    }

    /// <summary>Bodies are records; what the services bring along is not.</summary>
    private static bool IsRequest(Type type) =>
        type.Assembly == typeof(NoMissingEntries).Assembly && type.GetMethod("<Clone>$") is not null;

    private static void Check(object value, string name)
    {
        if (value is IEnumerable entries and not string)
        {
            foreach (var entry in entries)
            {
                Check(
                    entry
                        ?? throw new RuleException(
                            $"An entry of “{name}” is missing. Nothing was changed: send each of them."
                        ),
                    name
                );
            }

            return;
        }

        foreach (var property in Known.GetOrAdd(value.GetType(), PropertiesOf))
        {
            if (property.GetValue(value) is { } inner)
            {
                Check(inner, char.ToLowerInvariant(property.Name[0]) + property.Name[1..]);
            }
        }
    }

    /// <summary>
    /// What a body brings along: lists, and records of the server that may hold some. Values of the core check
    /// themselves.
    /// </summary>
    private static PropertyInfo[] PropertiesOf(Type type) =>
        type.Assembly != typeof(NoMissingEntries).Assembly || type.IsEnum || type.IsValueType
            ? []
            : [.. type.GetProperties(BindingFlags.Public | BindingFlags.Instance).Where(MayHoldLists)];

    private static bool MayHoldLists(PropertyInfo property) =>
        property.CanWrite
        && property.GetIndexParameters().Length == 0
        && property.PropertyType != typeof(string)
        && !property.PropertyType.IsValueType;
}
