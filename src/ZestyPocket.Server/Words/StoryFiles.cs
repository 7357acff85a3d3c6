using System.Globalization;
using System.ServiceModel.Syndication;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;
using ZestyPocket.Core.Words.Edits;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Reads stories from Markdown, plain text, RSS 2.0, Atom (RFC 4287) and JSON Feed 1.1. Nothing outside the file is
/// ever fetched; document types and entities are refused.
/// </summary>
public static partial class StoryFiles
{
    /// <summary>Reads a file; throws <see cref="RuleException"/> with the reason when it is none of these.</summary>
    public static IReadOnlyList<ArrivedStory> Read(
        string name,
        byte[] bytes,
        LocalTime cutOff,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(name);
        ArgumentNullException.ThrowIfNull(bytes);
        if (bytes.Length == 0)
        {
            throw new RuleException($"{name} is empty. Nothing was taken.");
        }

        var reading = new ForeignReading(name, cancel);
        var start = Encoding
            .Latin1.GetString(bytes, 0, Math.Min(bytes.Length, 400))
            .TrimStart('\u00EF', '\u00BB', '\u00BF', ' ', '\r', '\n', '\t');
        var stories =
            start.StartsWith('<') && FeedStart().IsMatch(start) || start.StartsWith("<?xml", StringComparison.Ordinal)
                ? Feed(reading, bytes, cutOff)
            : start.StartsWith('{') ? JsonFeed(reading, bytes, cutOff)
            : Text(reading, Decode(name, bytes));
        return stories.FirstOrDefault(s => s.Words.Length > AlbumStory.LongestWords) is { } tooLong
            ? throw new RuleException(
                $"“{(tooLong.Title.Length > 0 ? tooLong.Title : name)}” has {tooLong.Words.Length:N0} characters; a "
                    + $"story has {AlbumStory.LongestWords:N0} at most. Nothing was taken: split it."
            )
            : stories;
    }

    private static string Decode(string name, byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..] or [0xFE, 0xFF, ..])
        {
            return (bytes[0] == 0xFF ? Encoding.Unicode : Encoding.BigEndianUnicode).GetString(bytes);
        }

        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            // What is not Unicode but has no zero bytes is most likely from an old Western program.
            return Array.IndexOf(bytes, (byte)0) < 0
                ? Encoding.Latin1.GetString(bytes)
                : throw new RuleException(
                    $"{name} is no text. Nothing was taken: save it as plain text, Markdown or a feed."
                );
        }
    }

    private static List<ArrivedStory> Text(ForeignReading reading, string text)
    {
        var name = reading.Name;
        if (text.Contains('\0', StringComparison.Ordinal))
        {
            throw new RuleException(
                $"{name} is no text. Nothing was taken: save it as plain text, Markdown or a feed."
            );
        }

        var clean = PlainWords.Clean(text);
        var (day, title, author) = (FileNameDate.Read(name)?.Day, string.Empty, string.Empty);
        if (FrontMatter().Match(clean) is { Success: true } front)
        {
            clean = clean[front.Length..];
            foreach (var line in front.Groups["lines"].Value.Split('\n'))
            {
                var colon = line.IndexOf(':', StringComparison.Ordinal);
                var (key, value) =
                    colon < 0
                        ? (string.Empty, string.Empty)
                        : (line[..colon].Trim().ToLowerInvariant(), line[(colon + 1)..].Trim().Trim('"', '\''));
                (day, title, author) = key switch
                {
                    "date" => (Day(value) ?? day, title, author),
                    "title" => (day, value, author),
                    "author" => (day, title, value),
                    _ => (day, title, author),
                };
            }
        }

        // A heading with a date begins the story of that day.
        var stories = new List<ArrivedStory>();
        var at = 0;
        foreach (Match heading in DatedHeading().Matches(clean))
        {
            Add(clean[at..heading.Index]);
            (day, title, at) = (
                Day(heading.Groups["date"].Value) ?? day,
                heading.Groups["rest"].Value.Trim(' ', '-', '–', '—', ':', '.'),
                heading.Index + heading.Length
            );
        }

        Add(clean[at..]);
        return stories.Count > 0 ? stories : throw new RuleException($"{name} has no words. Nothing was taken.");

        void Add(string part)
        {
            reading.Check();
            CheckCount(stories.Count + 1, reading);
            var pictures = PictureInMarkdown()
                .Matches(part)
                .Select(m => FileName(m.Groups["src"].Value))
                .Distinct()
                .ToList();
            var words =
                name.EndsWith(".md", StringComparison.OrdinalIgnoreCase)
                || name.EndsWith(".markdown", StringComparison.OrdinalIgnoreCase)
                    ? MarkupWords.OfMarkdown(part, reading)
                    : part.Trim();
            if (words.Length > 0)
            {
                stories.Add(new ArrivedStory(Short(title, 200), words, day, Short(author, 80), null, pictures));
            }
        }
    }

    private static List<ArrivedStory> Feed(ForeignReading reading, byte[] bytes, LocalTime cutOff)
    {
        var name = reading.Name;
        try
        {
            CheckDepth(bytes, reading);
            using var reader = Xml(bytes);
            var feed = SyndicationFeed.Load(reader);
            CheckCount(feed.Items.Count(), reading);
            return
            [
                .. feed
                    .Items.Select(item =>
                    {
                        var html =
                            item.ElementExtensions.FirstOrDefault(e => e is { OuterName: "encoded" })
                                ?.GetObject<string>()
                            ?? (item.Content as TextSyndicationContent)?.Text
                            ?? item.Summary?.Text
                            ?? string.Empty;
                        var date = item.PublishDate != default ? item.PublishDate : item.LastUpdatedTime;
                        return Post(
                            item.Title?.Text,
                            html,
                            date == default ? null : date,
                            item.Authors.FirstOrDefault()?.Name
                                ?? item.Authors.FirstOrDefault()?.Email
                                ?? feed.Authors.FirstOrDefault()?.Name,
                            item.Id ?? item.Links.FirstOrDefault()?.Uri.ToString(),
                            cutOff,
                            reading
                        );
                    })
                    .OfType<ArrivedStory>(),
            ];
        }
        catch (XmlException broken)
        {
            throw new RuleException(
                broken.Message.Contains("DTD", StringComparison.Ordinal)
                    ? $"{name} declares a document type, which can hide traps. Nothing was taken: export the feed "
                        + "again without it."
                    : $"{name} is no whole feed: {broken.Message} Nothing was taken: export it again."
            );
        }
        catch (Exception odd) when (odd is FormatException or InvalidOperationException or NotSupportedException)
        {
            throw new RuleException(
                $"{name} is a feed with something this program cannot read ({odd.Message}). Nothing was taken."
            );
        }
    }

    private static List<ArrivedStory> JsonFeed(ForeignReading reading, byte[] bytes, LocalTime cutOff)
    {
        var name = reading.Name;
        try
        {
            using var document = JsonDocument.Parse(bytes, new JsonDocumentOptions { MaxDepth = 32 });
            if (!document.RootElement.TryGetProperty("items", out var items) || items.ValueKind != JsonValueKind.Array)
            {
                throw new RuleException($"{name} is JSON but no JSON Feed: it has no items. Nothing was taken.");
            }

            CheckCount(items.GetArrayLength(), reading);
            return
            [
                .. items
                    .EnumerateArray()
                    .Where(i => i.ValueKind == JsonValueKind.Object)
                    .Select(item =>
                    {
                        var html = Text(item, "content_html") is { } content
                            ? content
                            : System
                                .Net.WebUtility.HtmlEncode(Text(item, "content_text") ?? string.Empty)
                                .Replace("\n", "<br>", StringComparison.Ordinal);
                        var author =
                            item.TryGetProperty("authors", out var authors)
                            && authors.ValueKind == JsonValueKind.Array
                            && authors.GetArrayLength() > 0
                                ? Text(authors[0], "name")
                                : null;
                        var date = DateTimeOffset.TryParse(
                            Text(item, "date_published"),
                            CultureInfo.InvariantCulture,
                            DateTimeStyles.AssumeUniversal,
                            out var at
                        )
                            ? at
                            : (DateTimeOffset?)null;
                        var post = Post(
                            Text(item, "title"),
                            html,
                            date,
                            author,
                            Text(item, "id") ?? Text(item, "url"),
                            cutOff,
                            reading
                        );
                        return post is not null && Text(item, "image") is { } image
                            ? post with
                            {
                                Pictures = [.. post.Pictures, FileName(image)],
                            }
                            : post;
                    })
                    .OfType<ArrivedStory>(),
            ];
        }
        catch (JsonException broken)
        {
            throw new RuleException(
                $"{name} is no whole JSON Feed: {broken.Message} Nothing was taken: export it again."
            );
        }

        static string? Text(JsonElement item, string property) =>
            item.ValueKind == JsonValueKind.Object
            && item.TryGetProperty(property, out var value)
            && value.ValueKind == JsonValueKind.String
                ? value.GetString()
                : null;
    }

    private static ArrivedStory? Post(
        string? title,
        string html,
        DateTimeOffset? at,
        string? author,
        string? id,
        LocalTime cutOff,
        ForeignReading reading
    )
    {
        var (words, sources) = MarkupWords.OfHtml(html, reading);
        var pictures = sources.Select(FileName).Where(n => n.Length > 0).Distinct().ToList();
        if (words.Length == 0 && string.IsNullOrWhiteSpace(title))
        {
            return null;
        }

        // By the clock that the post itself names; a post after midnight tells of the evening.
        var day = at is { } moment
            ? AlbumDay.Of(LocalDateTime.FromDateTime(moment.DateTime), cutOff)
            : (LocalDate?)null;
        return new ArrivedStory(
            Short(MarkupWords.OfHtml(title ?? string.Empty, reading).Text, 200),
            words,
            day,
            Short(author ?? string.Empty, 80),
            id is null ? null : Short(id, 500),
            pictures
        );
    }

    private static XmlReader Xml(byte[] bytes) =>
        XmlReader.Create(
            new MemoryStream(bytes),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = ForeignReading.LargestStoryFile,
            }
        );

    /// <summary>
    /// Reads through the elements once, without keeping any: what builds them goes as deep as they do.
    /// </summary>
    private static void CheckDepth(byte[] bytes, ForeignReading reading)
    {
        using var reader = Xml(bytes);
        while (reader.Read())
        {
            if (reader.Depth > ForeignReading.DeepestMarkup)
            {
                throw reading.Refuse($"has elements nested more than {ForeignReading.DeepestMarkup} deep");
            }
        }
    }

    private static void CheckCount(int stories, ForeignReading reading)
    {
        if (stories > ForeignReading.MostStories)
        {
            throw reading.Refuse($"has {stories:N0} posts; {ForeignReading.MostStories:N0} at most are taken at once");
        }
    }

    private static LocalDate? Day(string text) =>
        text.Length >= 10 && LocalDatePattern.Iso.Parse(text[..10]) is { Success: true, Value: var day } ? day : null;

    private static string FileName(string source)
    {
        var path = source.Split('?', '#')[0].Replace('\\', '/');
        return Short(PlainWords.Name(Uri.UnescapeDataString(path[(path.LastIndexOf('/') + 1)..])), 300);
    }

    private static string Short(string text, int most) => text.Length <= most ? text.Trim() : text[..most].Trim();

    [GeneratedRegex(@"^<(\?xml|rss|feed|rdf:RDF)\b", RegexOptions.IgnoreCase)]
    private static partial Regex FeedStart();

    [GeneratedRegex(@"^---\n(?<lines>(?:.*\n)*?)---\n")]
    private static partial Regex FrontMatter();

    [GeneratedRegex(@"^#{1,3}[ \t]+(?<date>[0-9]{4}-[0-9]{2}-[0-9]{2})(?<rest>.*)$", RegexOptions.Multiline)]
    private static partial Regex DatedHeading();

    [GeneratedRegex(@"!\[[^\[\]]{0,1000}\]\((?<src>[^)\s]{1,2000})")]
    private static partial Regex PictureInMarkdown();
}
