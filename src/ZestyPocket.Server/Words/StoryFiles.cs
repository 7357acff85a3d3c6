using System.Globalization;
using System.ServiceModel.Syndication;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Markdig;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Server.Words;

/// <summary>Words that came in a file.</summary>
/// <param name="Title">May be empty.</param>
/// <param name="Words">Plain text.</param>
/// <param name="Day">The album's day, when the file says one.</param>
/// <param name="Author">May be empty.</param>
/// <param name="Source">What makes it the same post when it comes again; null for plain files.</param>
/// <param name="Pictures">File names of pictures it refers to.</param>
public sealed record ArrivedStory(string Title, string Words, LocalDate? Day, string Author, string? Source, IReadOnlyList<string> Pictures);

/// <summary>
/// Reads stories from Markdown, plain text, RSS 2.0, Atom (RFC 4287) and JSON Feed 1.1. Nothing outside the file is
/// ever fetched; document types and entities are refused.
/// </summary>
public static partial class StoryFiles
{
    public const int LargestFile = 20 << 20;

    private const int MostStories = 2_000;

    /// <summary>Reads a file; throws <see cref="RuleException"/> with the reason when it is none of these.</summary>
    public static IReadOnlyList<ArrivedStory> Read(string name, byte[] bytes, LocalTime cutOff)
    {
        ArgumentNullException.ThrowIfNull(name);
        ArgumentNullException.ThrowIfNull(bytes);
        if (bytes.Length == 0)
        {
            throw new RuleException($"{name} is empty. Nothing was taken.");
        }

        var start = Encoding.Latin1.GetString(bytes, 0, Math.Min(bytes.Length, 400)).TrimStart('\u00EF', '\u00BB', '\u00BF', ' ', '\r', '\n', '\t');
        var stories = start.StartsWith('<') && FeedStart().IsMatch(start) || start.StartsWith("<?xml", StringComparison.Ordinal) ? Feed(name, bytes, cutOff)
            : start.StartsWith('{') ? JsonFeed(name, bytes, cutOff)
            : Text(name, Decode(name, bytes));
        if (stories.Count > MostStories)
        {
            throw new RuleException($"{name} has {stories.Count:N0} posts; {MostStories:N0} at most are taken at once. Nothing was taken: split the file.");
        }

        return stories.FirstOrDefault(s => s.Words.Length > Story.LongestWords) is { } tooLong
            ? throw new RuleException($"“{(tooLong.Title.Length > 0 ? tooLong.Title : name)}” has {tooLong.Words.Length:N0} characters; a story has {Story.LongestWords:N0} at most. Nothing was taken: split it.")
            : stories;
    }

    /// <summary>Words as they are kept: line ends are one sign, control characters and stray byte marks go.</summary>
    public static string Clean(string words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var text = words.ReplaceLineEndings("\n");
        return text.Any(c => (char.IsControl(c) && c is not ('\n' or '\t')) || c == '\uFEFF')
            ? string.Concat(text.Where(c => !(char.IsControl(c) && c is not ('\n' or '\t')) && c != '\uFEFF'))
            : text;
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
                : throw new RuleException($"{name} is no text. Nothing was taken: save it as plain text, Markdown or a feed.");
        }
    }

    private static List<ArrivedStory> Text(string name, string text)
    {
        if (text.Contains('\0', StringComparison.Ordinal))
        {
            throw new RuleException($"{name} is no text. Nothing was taken: save it as plain text, Markdown or a feed.");
        }

        var clean = Clean(text);
        var (day, title, author) = (FileNameDate.Read(name)?.Day, string.Empty, string.Empty);
        if (FrontMatter().Match(clean) is { Success: true } front)
        {
            clean = clean[front.Length..];
            foreach (var line in front.Groups["lines"].Value.Split('\n'))
            {
                var colon = line.IndexOf(':', StringComparison.Ordinal);
                var (key, value) = colon < 0 ? (string.Empty, string.Empty) : (line[..colon].Trim().ToLowerInvariant(), line[(colon + 1)..].Trim().Trim('"', '\''));
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
            (day, title, at) = (Day(heading.Groups["date"].Value) ?? day, heading.Groups["rest"].Value.Trim(' ', '-', '–', '—', ':', '.'), heading.Index + heading.Length);
        }

        Add(clean[at..]);
        return stories.Count > 0 ? stories : throw new RuleException($"{name} has no words. Nothing was taken.");

        void Add(string part)
        {
            var pictures = PictureInMarkdown().Matches(part).Select(m => FileName(m.Groups["src"].Value)).Distinct().ToList();
            var words = name.EndsWith(".md", StringComparison.OrdinalIgnoreCase) || name.EndsWith(".markdown", StringComparison.OrdinalIgnoreCase)
                ? HtmlText(Markdown.ToHtml(part)).Text
                : part.Trim();
            if (words.Length > 0)
            {
                stories.Add(new ArrivedStory(Short(title, 200), words, day, Short(author, 80), null, pictures));
            }
        }
    }

    private static List<ArrivedStory> Feed(string name, byte[] bytes, LocalTime cutOff)
    {
        try
        {
            using var stream = new MemoryStream(bytes);
            using var reader = XmlReader.Create(stream, new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, MaxCharactersInDocument = LargestFile });
            var feed = SyndicationFeed.Load(reader);
            return [.. feed.Items.Select(item =>
            {
                var html = item.ElementExtensions.FirstOrDefault(e => e is { OuterName: "encoded" })?.GetObject<string>()
                    ?? (item.Content as TextSyndicationContent)?.Text ?? item.Summary?.Text ?? string.Empty;
                var date = item.PublishDate != default ? item.PublishDate : item.LastUpdatedTime;
                return Post(
                    item.Title?.Text, html, date == default ? null : date,
                    item.Authors.FirstOrDefault()?.Name ?? item.Authors.FirstOrDefault()?.Email ?? feed.Authors.FirstOrDefault()?.Name,
                    item.Id ?? item.Links.FirstOrDefault()?.Uri.ToString(), cutOff);
            }).OfType<ArrivedStory>()];
        }
        catch (XmlException broken)
        {
            throw new RuleException(broken.Message.Contains("DTD", StringComparison.Ordinal)
                ? $"{name} declares a document type, which can hide traps. Nothing was taken: export the feed again without it."
                : $"{name} is no whole feed: {broken.Message} Nothing was taken: export it again.");
        }
        catch (Exception odd) when (odd is FormatException or InvalidOperationException or UriFormatException)
        {
            throw new RuleException($"{name} is a feed with something this program cannot read ({odd.Message}). Nothing was taken.");
        }
    }

    private static List<ArrivedStory> JsonFeed(string name, byte[] bytes, LocalTime cutOff)
    {
        try
        {
            using var document = JsonDocument.Parse(bytes, new JsonDocumentOptions { MaxDepth = 32 });
            if (!document.RootElement.TryGetProperty("items", out var items) || items.ValueKind != JsonValueKind.Array)
            {
                throw new RuleException($"{name} is JSON but no JSON Feed: it has no items. Nothing was taken.");
            }

            return [.. items.EnumerateArray().Where(i => i.ValueKind == JsonValueKind.Object).Select(item =>
            {
                var html = Text(item, "content_html") is { } content ? content : System.Net.WebUtility.HtmlEncode(Text(item, "content_text") ?? string.Empty).Replace("\n", "<br>", StringComparison.Ordinal);
                var author = item.TryGetProperty("authors", out var authors) && authors.ValueKind == JsonValueKind.Array && authors.GetArrayLength() > 0 ? Text(authors[0], "name") : null;
                var date = DateTimeOffset.TryParse(Text(item, "date_published"), CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at) ? at : (DateTimeOffset?)null;
                var post = Post(Text(item, "title"), html, date, author, Text(item, "id") ?? Text(item, "url"), cutOff);
                return post is not null && Text(item, "image") is { } image ? post with { Pictures = [.. post.Pictures, FileName(image)] } : post;
            }).OfType<ArrivedStory>()];
        }
        catch (JsonException broken)
        {
            throw new RuleException($"{name} is no whole JSON Feed: {broken.Message} Nothing was taken: export it again.");
        }

        static string? Text(JsonElement item, string property) =>
            item.ValueKind == JsonValueKind.Object && item.TryGetProperty(property, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;
    }

    private static ArrivedStory? Post(string? title, string html, DateTimeOffset? at, string? author, string? id, LocalTime cutOff)
    {
        var (words, pictures) = HtmlText(html);
        if (words.Length == 0 && string.IsNullOrWhiteSpace(title))
        {
            return null;
        }

        // By the clock that the post itself names; a post after midnight tells of the evening.
        var day = at is { } moment ? AlbumDay.Of(LocalDateTime.FromDateTime(moment.DateTime), cutOff) : (LocalDate?)null;
        return new ArrivedStory(Short(HtmlText(title ?? string.Empty).Text, 200), words, day, Short(author ?? string.Empty, 80), id is null ? null : Short(id, 500), pictures);
    }

    /// <summary>Plain words of a piece of HTML, paragraphs parted by blank lines, and the pictures it shows.</summary>
    private static (string Text, IReadOnlyList<string> Pictures) HtmlText(string html)
    {
        var body = new HtmlParser().ParseDocument(html).Body!;
        foreach (var unseen in body.QuerySelectorAll("script, style, iframe, object, noscript").ToList())
        {
            unseen.Remove();
        }

        var pictures = body.QuerySelectorAll("img").Select(i => FileName(i.GetAttribute("src") ?? string.Empty)).Where(n => n.Length > 0).Distinct().ToList();
        var text = new StringBuilder();
        Walk(body);
        return (BlankRuns().Replace(LineEdges().Replace(Clean(text.ToString()), "\n"), "\n\n").Trim(), pictures);

        void Walk(INode node)
        {
            foreach (var child in node.ChildNodes)
            {
                switch (child)
                {
                    case IText words when node is IElement { LocalName: "ul" or "ol" or "table" or "tr" or "tbody" } && string.IsNullOrWhiteSpace(words.Data):
                        break;
                    case IText words:
                        text.Append(SpaceRuns().Replace(words.Data, " "));
                        break;
                    case IElement { LocalName: "br" }:
                        text.Append('\n');
                        break;
                    case IElement element:
                        var block = element.LocalName is "p" or "div" or "h1" or "h2" or "h3" or "h4" or "h5" or "h6" or "blockquote" or "ul" or "ol" or "table" or "figure" or "section" or "article";
                        text.Append(block ? "\n\n" : element.LocalName is "li" or "tr" ? "\n" : string.Empty).Append(element.LocalName == "li" ? "- " : string.Empty);
                        Walk(element);
                        text.Append(block ? "\n\n" : string.Empty);
                        break;
                    default:
                        break;
                }
            }
        }
    }

    private static LocalDate? Day(string text) => text.Length >= 10 && LocalDatePattern.Iso.Parse(text[..10]) is { Success: true, Value: var day } ? day : null;

    private static string FileName(string source)
    {
        var path = source.Split('?', '#')[0].Replace('\\', '/');
        return Short(Uri.UnescapeDataString(path[(path.LastIndexOf('/') + 1)..]), 300);
    }

    private static string Short(string text, int most) => text.Length <= most ? text.Trim() : text[..most].Trim();

    [GeneratedRegex(@"^<(\?xml|rss|feed|rdf:RDF)\b", RegexOptions.IgnoreCase)]
    private static partial Regex FeedStart();

    [GeneratedRegex(@"^---\n(?<lines>(?:.*\n)*?)---\n")]
    private static partial Regex FrontMatter();

    [GeneratedRegex(@"^#{1,3}[ \t]+(?<date>\d{4}-\d{2}-\d{2})(?<rest>.*)$", RegexOptions.Multiline)]
    private static partial Regex DatedHeading();

    [GeneratedRegex(@"!\[[^\]]*\]\((?<src>[^)\s]+)")]
    private static partial Regex PictureInMarkdown();

    [GeneratedRegex(@"[ \t]*\n(?:[ \t]*\n)+[ \t]*")]
    private static partial Regex BlankRuns();

    [GeneratedRegex(@"[ \t]*\n[ \t]*")]
    private static partial Regex LineEdges();

    [GeneratedRegex(@"\s+")]
    private static partial Regex SpaceRuns();
}
