using System.Text;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Markdig;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Plain words of Markdown and HTML. Size, depth and number of marks are looked at before a parser sees the text, since
/// parsers take quadratic time or end the thread on text that was made to do so.
/// </summary>
internal static partial class MarkupWords
{
    /// <summary>Elements that never hold others, or that end by themselves when the next one begins.</summary>
    private static readonly HashSet<string> NeverNested = new(StringComparer.OrdinalIgnoreCase)
    {
        "area",
        "base",
        "br",
        "col",
        "embed",
        "hr",
        "img",
        "input",
        "link",
        "meta",
        "param",
        "source",
        "track",
        "wbr",
        "p",
        "li",
        "dt",
        "dd",
        "option",
        "tr",
        "td",
        "th",
        "tbody",
        "thead",
        "tfoot",
    };

    /// <summary>The words of a piece of Markdown.</summary>
    public static string OfMarkdown(string markdown, ForeignReading reading)
    {
        CheckLength(markdown, reading);
        CheckMarks(markdown, reading);
        return OfHtml(Markdown.ToHtml(markdown), reading).Text;
    }

    /// <summary>
    /// Plain words of a piece of HTML, paragraphs parted by blank lines, and the sources of the pictures it shows.
    /// </summary>
    public static (string Text, IReadOnlyList<string> Pictures) OfHtml(string html, ForeignReading reading)
    {
        reading.Check();
        CheckLength(html, reading);
        CheckDepth(html, reading);
        var body = new HtmlParser().ParseDocument(html).Body!;
        var pictures = new List<string>();
        return (Tidy(Walk(body, pictures, reading)), pictures);
    }

    private static void CheckLength(string markup, ForeignReading reading)
    {
        if (markup.Length > ForeignReading.LongestMarkup)
        {
            throw reading.Refuse(
                $"has a post of {markup.Length:N0} characters; {ForeignReading.LongestMarkup:N0} at most can be read"
            );
        }
    }

    /// <summary>Counts open elements without building any.</summary>
    private static void CheckDepth(string html, ForeignReading reading)
    {
        var (depth, elements) = (0, 0);
        for (
            var at = html.IndexOf('<', StringComparison.Ordinal);
            at >= 0 && at + 1 < html.Length;
            at = html.IndexOf('<', at + 1)
        )
        {
            var closing = html[at + 1] == '/';
            var start = at + (closing ? 2 : 1);
            var end = start;
            while (end < html.Length && end - start < 40 && char.IsAsciiLetterOrDigit(html[end]))
            {
                end++;
            }

            if (end == start || NeverNested.Contains(html[start..end]))
            {
                elements += end == start ? 0 : 1;
            }
            else if (closing)
            {
                depth = Math.Max(0, depth - 1);
            }
            else
            {
                (depth, elements) = (depth + 1, elements + 1);
            }

            if (depth > ForeignReading.DeepestMarkup)
            {
                throw reading.Refuse($"has elements nested more than {ForeignReading.DeepestMarkup} deep");
            }

            if (elements > ForeignReading.MostElements)
            {
                throw reading.Refuse($"has a post with more than {ForeignReading.MostElements:N0} elements");
            }
        }
    }

    /// <summary>Looks at each line's indent and at the marks of each paragraph.</summary>
    private static void CheckMarks(string markdown, ForeignReading reading)
    {
        var marks = 0;
        foreach (var line in markdown.AsSpan().EnumerateLines())
        {
            if (line.IsWhiteSpace())
            {
                marks = 0;
                continue;
            }

            if (Depth(line) > ForeignReading.DeepestMarkup)
            {
                throw reading.Refuse($"has lists or quotes nested more than {ForeignReading.DeepestMarkup} deep");
            }

            foreach (var c in line)
            {
                marks += c is '[' or ']' or '*' or '_' or '`' or '<' or '\\' or '&' or '~' ? 1 : 0;
            }

            if (marks > ForeignReading.MostMarksInParagraph)
            {
                throw reading.Refuse(
                    $"has a paragraph with more than {ForeignReading.MostMarksInParagraph:N0} signs of markup"
                );
            }
        }
    }

    /// <summary>
    /// How deep a line lies: the signs of lists and quotes before its words, or two blanks of indent each.
    /// </summary>
    private static int Depth(ReadOnlySpan<char> line)
    {
        var (indent, nested, at) = (0, 0, 0);
        for (; at < line.Length && IsBeforeWords(line[at]); at++)
        {
            indent += line[at] switch
            {
                ' ' => 1,
                '\t' => 4,
                _ => 0,
            };
            nested +=
                line[at] == '>' || IsBullet(line[at]) && at + 1 < line.Length && line[at + 1] is ' ' or '\t' ? 1 : 0;
        }

        return Math.Max(nested, at < line.Length ? indent / 2 : 0);
    }

    private static bool IsBullet(char c) => c is '-' or '*' or '+' or '.' or ')';

    private static bool IsBeforeWords(char c) => c is ' ' or '\t' or '>' || IsBullet(c) || char.IsAsciiDigit(c);

    /// <summary>Walks the elements with a stack of its own: however deep they are, no thread ends.</summary>
    private static string Walk(IElement body, List<string> pictures, ForeignReading reading)
    {
        var text = new StringBuilder();
        var open = new Stack<(INode? Node, string After)>();
        Push(body);
        var seen = 0;
        while (open.TryPop(out var next))
        {
            if (next.Node is null)
            {
                text.Append(next.After);
                continue;
            }

            if (++seen % 1_000 == 0)
            {
                reading.Check();
            }

            switch (next.Node)
            {
                case IText words when IsBetweenItems(words):
                    break;
                case IText words:
                    text.Append(SpaceRuns().Replace(words.Data, " "));
                    break;
                case IElement { LocalName: "script" or "style" or "iframe" or "object" or "noscript" or "template" }:
                    break;
                case IElement { LocalName: "br" }:
                    text.Append('\n');
                    break;
                case IElement { LocalName: "img" } image:
                    pictures.Add(image.GetAttribute("src") ?? string.Empty);
                    break;
                case IElement element:
                    var block = IsBlock(element);
                    text.Append(
                            block ? "\n\n"
                            : element.LocalName is "li" or "tr" ? "\n"
                            : string.Empty
                        )
                        .Append(element.LocalName == "li" ? "- " : string.Empty);
                    open.Push((null, block ? "\n\n" : string.Empty));
                    Push(element);
                    break;
                default:
                    break;
            }
        }

        return text.ToString();

        void Push(INode parent)
        {
            for (var i = parent.ChildNodes.Length - 1; i >= 0; i--)
            {
                open.Push((parent.ChildNodes[i], string.Empty));
            }
        }
    }

    private static bool IsBetweenItems(IText words) =>
        words.Parent is IElement { LocalName: "ul" or "ol" or "table" or "tr" or "tbody" }
        && string.IsNullOrWhiteSpace(words.Data);

    private static bool IsBlock(IElement element) =>
        element.LocalName
            is "p"
                or "div"
                or "h1"
                or "h2"
                or "h3"
                or "h4"
                or "h5"
                or "h6"
                or "blockquote"
                or "ul"
                or "ol"
                or "table"
                or "figure"
                or "section"
                or "article";

    /// <summary>
    /// Blanks at line edges go, and runs of blank lines become one; line by line, since a pattern would be quadratic.
    /// </summary>
    private static string Tidy(string text)
    {
        var tidy = new StringBuilder(text.Length);
        var blank = 0;
        foreach (var line in PlainWords.Clean(text).AsSpan().EnumerateLines())
        {
            var trimmed = line.Trim(" \t");
            if (trimmed.IsEmpty)
            {
                blank++;
                continue;
            }

            if (tidy.Length > 0)
            {
                tidy.Append(blank > 0 ? "\n\n" : "\n");
            }

            tidy.Append(trimmed);
            blank = 0;
        }

        return tidy.ToString().Trim();
    }

    [GeneratedRegex(@"\s+")]
    private static partial Regex SpaceRuns();
}
