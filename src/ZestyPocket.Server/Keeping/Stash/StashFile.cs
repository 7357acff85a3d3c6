using System.Globalization;
using System.Text;
using CsvHelper;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>The items of a file, and the lines that could not be read.</summary>
public sealed record ReadStash(IReadOnlyList<StashEntry> Entries, IReadOnlyList<string> Passed);

/// <summary>
/// A stash as CSV with the head line name, kind, count, size, colours, theme, kit, place, price, currency, letters.
/// Only the name must be there; what is written is what is read.
/// </summary>
public static class StashFile
{
    /// <summary>In bytes.</summary>
    public const int Largest = 4 << 20;

    private static readonly string[] Head =
    [
        "name",
        "kind",
        "count",
        "size",
        "colours",
        "theme",
        "kit",
        "place",
        "price",
        "currency",
        "letters",
    ];

    /// <summary>
    /// Throws <see cref="RuleException"/> when the whole file says nothing; single bad lines are passed over and named.
    /// </summary>
    public static ReadStash Read(string name, byte[] bytes, CancellationToken cancel)
    {
        var reading = new ForeignReading(name, cancel);
        List<Dictionary<string, string>> rows;
        try
        {
            rows = CsvTable.Read(Encoding.UTF8.GetString(bytes).Trim('\ufeff', ' ', '\n', '\r'), reading);
        }
        catch (CsvFormatException)
        {
            throw reading.Refuse("is no CSV with a head line");
        }

        var (entries, passed) = (new List<StashEntry>(), new List<string>());
        foreach (var (row, number) in rows.Select((r, i) => (r, i + 2)))
        {
            reading.Check();
            try
            {
                var entry = EntryOf(row);
                _ = entry.Item(Guid.Empty);
                entries.Add(entry);
            }
            catch (RuleException reason)
            {
                passed.Add(
                    string.Create(CultureInfo.InvariantCulture, $"Line {number} was passed over: {reason.Message}")
                );
            }
        }

        return entries.Count > 0
            ? new ReadStash(entries, passed)
            : throw reading.Refuse($"has no line with a name under a head line such as {string.Join(", ", Head)}");
    }

    public static byte[] Write(IEnumerable<StashItem> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        return CsvTable.Write(Head, items.Select(Row));
    }

    private static IEnumerable<string> Row(StashItem item)
    {
        var entry = StashEntry.Of(item, MeasureSystem.Inches);
        return
        [
            entry.Name,
            KindName(entry.Kind),
            entry.Count.ToString(CultureInfo.InvariantCulture),
            entry.Size,
            entry.Colours,
            entry.Theme,
            entry.Kit,
            entry.Place,
            entry.Price?.Amount.ToString(CultureInfo.InvariantCulture) ?? "",
            entry.Price?.Currency ?? "",
            entry.Letters,
        ];
    }

    private static string KindName(StashKind kind) => kind.ToString().ToLowerInvariant();

    private static StashEntry EntryOf(Dictionary<string, string> row)
    {
        return new StashEntry(
            KindOf(Field("kind")),
            Field("name"),
            Field("count") is { Length: > 0 } count
                ? int.TryParse(count, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                    ? number
                    : throw new RuleException($"“{count}” is no count.")
                : 1,
            Field("theme"),
            Field("kit"),
            Field("place"),
            Field("size"),
            Field("colours", "colors"),
            PriceOf(Field("price"), Field("currency")),
            Field("letters")
        );

        string Field(params string[] names) =>
            names.Select(n => row.GetValueOrDefault(n)?.Trim()).FirstOrDefault(v => !string.IsNullOrEmpty(v)) ?? "";
    }

    private static StashKind KindOf(string name) =>
        name.Length == 0
            ? StashKind.Other
            : Enum.GetValues<StashKind>()
                .Where(k => name.TrimEnd('s').Equals(KindName(k).TrimEnd('s'), StringComparison.OrdinalIgnoreCase))
                .Cast<StashKind?>()
                .FirstOrDefault()
                ?? throw new RuleException(
                    $"“{name}” is no kind: write {string.Join(", ", Enum.GetValues<StashKind>().Select(KindName))}."
                );

    private static Money? PriceOf(string amount, string currency) =>
        amount.Length == 0 ? null
        : decimal.TryParse(amount.Replace(',', '.'), NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
            ? new Money(number, currency).Checked()
        : throw new RuleException($"“{amount}” is no price.");
}
