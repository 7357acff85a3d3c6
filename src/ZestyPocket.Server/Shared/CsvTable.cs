using System.Text;
using CsvHelper;

namespace ZestyPocket.Server.Shared;

/// <summary>Tables of a spreadsheet as comma-separated values, with a head line.</summary>
public static class CsvTable
{
    /// <summary>
    /// The rows by the names of the head line, lower-case letters only. Commas, semicolons and tabs separate; a row
    /// that is too short lacks its last fields.
    /// </summary>
    public static List<Dictionary<string, string>> Read(string text, ForeignReading reading)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(reading);
        var first = text.Split('\n', 2)[0];
        var options = CsvReaderOptions.Default with
        {
            HasHeader = false,
            Separator = ",;\t".MaxBy(s => first.Count(c => c == s)),
            MalformedData = CsvMalformedDataHandling.Recover,
            FieldCountMismatch = CsvFieldCountHandling.Allow,
        };
        using var csv = CsvReader.Create(new MemoryStream(Encoding.UTF8.GetBytes(text)), options);
        var rows = new List<Dictionary<string, string>>();
        if (!csv.Read())
        {
            return rows;
        }

        var names = Enumerable.Range(0, csv.FieldCount).Select(i => Plain(csv.GetString(i))).ToList();
        while (csv.Read())
        {
            reading.Check();
            rows.Add(
                names
                    .Take(csv.FieldCount)
                    .Select((n, i) => (Name: n, Value: csv.GetString(i)))
                    .GroupBy(f => f.Name)
                    .ToDictionary(g => g.Key, g => g.First().Value)
            );
        }

        return rows;
    }

    /// <summary>A table that no spreadsheet takes for formulas, with the mark of UTF-8.</summary>
    public static byte[] Write(IEnumerable<string> head, IEnumerable<IEnumerable<string>> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        using var memory = new MemoryStream();
        var options = CsvWriterOptions.Default with { Injection = CsvInjection.Escape, WriteByteOrderMark = true };
        using (var csv = CsvWriter.Create(memory, options, true))
        {
            foreach (var row in rows.Prepend(head))
            {
                foreach (var field in row)
                {
                    csv.WriteField(field);
                }

                csv.EndRecord();
            }
        }

        return memory.ToArray();
    }

    /// <summary>A name of the head line: lower-case letters only.</summary>
    public static string Plain(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return string.Concat(name.ToLowerInvariant().Where(char.IsAsciiLetter));
    }
}
