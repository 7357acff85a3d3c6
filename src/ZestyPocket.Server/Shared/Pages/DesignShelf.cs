using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Shared;

/// <summary>The page designs there are: those built in and the keeper's own collection.</summary>
public sealed class DesignShelf(ZestyContext db, ICurrentKeeper keeper, IClock clock)
{
    /// <summary>A collection of more than this is not looked through by anybody.</summary>
    public const int Most = 400;

    private List<KeeperDesign> _own = [];

    /// <summary>Reads the keeper's collection, for <see cref="Find"/>.</summary>
    public async Task<IReadOnlyList<KeeperDesign>> LoadAsync(CancellationToken cancel)
    {
        _own = await db
            .Designs.Where(d => d.KeeperId == keeper.Id && d.PutAwayAt == null)
            .OrderBy(d => d.MadeAt)
            .ThenBy(d => d.Id)
            .ToListAsync(cancel);
        return _own;
    }

    /// <summary>
    /// A design by its key; null when there is none. The keeper's own are known once they were loaded.
    /// </summary>
    public PageDesign? Find(string? key) =>
        key is null
            ? null
            : BuiltInDesigns.Find(key)
                ?? _own.Where(d => d.Key == key)
                    .Select(d => PageDesign.FromNotation(d.Key, d.Name, d.Notation))
                    .FirstOrDefault();

    /// <summary>
    /// An unmeasured protector; one of the keeper's own carries its notation, so that it outlives the collection.
    /// </summary>
    public Protector AsProtector(PageDesign design)
    {
        ArgumentNullException.ThrowIfNull(design);
        var protector = Protector.Unmeasured(design);
        return _own.Find(d => d.Key == design.Key) is { } own
            ? protector with
            {
                Form = protector.Form with { Name = own.Name, Notation = own.Notation },
            }
            : protector;
    }

    /// <summary>Keeps a design in the collection.</summary>
    public async Task<KeeperDesign> KeepAsync(string? name, string notation, CancellationToken cancel)
    {
        var draft = DesignDraft.Read(notation);
        var called = string.IsNullOrWhiteSpace(name) ? DesignDraft.NameOf(draft.Pockets) : name.Trim();
        if (called.Length > 120)
        {
            throw new RuleException("A page design has a name of at most 120 characters. Nothing was kept.");
        }

        await LoadAsync(cancel);
        if (_own.Count >= Most)
        {
            throw new RuleException($"A collection holds {Most} designs. Nothing was kept: put some away first.");
        }

        if (_own.Find(d => d.Name == called && d.Notation == draft.Notation) is { } same)
        {
            return same;
        }

        var row = new KeeperDesign
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeper.Id,
            Name = called,
            Notation = draft.Notation,
            MadeAt = clock.GetCurrentInstant(),
        };
        db.Designs.Add(row);
        _own.Add(row);
        await db.SaveChangesAsync(cancel);
        return row;
    }

    /// <summary>Puts a design away, or brings it back. Albums that use it keep it.</summary>
    public async Task PutAwayAsync(Guid id, bool away, CancellationToken cancel)
    {
        var row =
            await db.Designs.SingleOrDefaultAsync(d => d.Id == id && d.KeeperId == keeper.Id, cancel)
            ?? throw new MissingException("The page design");
        row.PutAwayAt = away ? clock.GetCurrentInstant() : null;
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// Takes designs from a file: the program's own JSON (<c>docs/formats.md</c>), or plain text with one design a
    /// line, its name before a colon. What cannot be read is named with its reason; the others are kept.
    /// </summary>
    public async Task<ImportedDesigns> ImportAsync(string text, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > 500_000)
        {
            throw new RuleException(
                "The file is longer than 500,000 characters: that is no file of page designs. Nothing was kept."
            );
        }

        var found = text.TrimStart().StartsWith('{') ? FromJson(text) : FromText(text);
        if (found.Count is 0 or > Most)
        {
            throw new RuleException(
                $"The file holds {found.Count} designs; 1 to {Most} can be taken at once. Nothing was kept."
            );
        }

        var (kept, refused) = (new List<string>(), new List<string>());
        foreach (var (name, notation) in found)
        {
            try
            {
                kept.Add((await KeepAsync(name, notation, cancel)).Name);
            }
            catch (RuleException reason)
            {
                refused.Add($"{(string.IsNullOrWhiteSpace(name) ? notation : name)}: {reason.Message}");
            }
        }

        return new ImportedDesigns(kept, refused);
    }

    /// <summary>The collection as a file of the open format in <c>docs/formats.md</c>.</summary>
    public async Task<string> ExportAsync(CancellationToken cancel) =>
        JsonSerializer.Serialize(
            new DesignFile(
                "zesty-pocket-page-designs",
                1,
                [.. (await LoadAsync(cancel)).Select(d => new DesignInFile(d.Name, d.Notation))]
            ),
            FileJson
        );

    private static readonly JsonSerializerOptions FileJson = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private static List<(string? Name, string Notation)> FromJson(string text)
    {
        try
        {
            var file = JsonSerializer.Deserialize<DesignFile>(text, FileJson);
            return file is { Format: "zesty-pocket-page-designs", Version: 1 }
                ? [.. (file.Designs ?? []).Select(d => ((string?)d.Name, d.Notation ?? string.Empty))]
                : throw new RuleException("The file is not one of page designs of version 1. Nothing was kept.");
        }
        catch (JsonException broken)
        {
            throw new RuleException(
                $"The file cannot be read at line {(broken.LineNumber ?? 0) + 1}. Nothing was kept."
            );
        }
    }

    private static List<(string? Name, string Notation)> FromText(string text) =>
        [
            .. text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Where(line => !line.StartsWith('#'))
                .Select(line =>
                {
                    var colon = line.IndexOf(':', StringComparison.Ordinal);
                    return colon < 0 ? ((string?)null, line) : (line[..colon].Trim(), line[(colon + 1)..].Trim());
                }),
        ];

    private sealed record DesignFile(string Format, int Version, IReadOnlyList<DesignInFile>? Designs);

    private sealed record DesignInFile(string? Name, string? Notation);
}

/// <summary>What was taken from a file of designs, and what was not, with the reason.</summary>
public sealed record ImportedDesigns(IReadOnlyList<string> Kept, IReadOnlyList<string> Refused);
