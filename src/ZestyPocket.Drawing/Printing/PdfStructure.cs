using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace ZestyPocket.Drawing.Printing;

/// <summary>What a screen reader says of a page, in reading order.</summary>
/// <param name="Heading">What begins on it; null when nothing does.</param>
/// <param name="Described">What is to be seen on it.</param>
/// <param name="Words">What is written on it, paragraph by paragraph.</param>
public sealed record PdfReading(string? Heading, string Described, ImmutableArray<string> Words);

/// <summary>
/// The logical structure of a PDF (ISO 32000-1, 14.7 and 14.8): a document of sections, one for each page, each with a
/// heading, a figure that is the page as drawn, and paragraphs of its words (14.9.4, ActualText). The content of a page
/// is not changed: it is put between two streams that mark it.
/// </summary>
internal sealed partial class PdfStructure(int firstNumber)
{
    private readonly List<(int Number, string Text)> _objects = [];
    private readonly List<int> _sections = [];

    /// <summary>For each page the elements that its marked content belongs to, by their numbers in it.</summary>
    private readonly List<List<int>> _parents = [];
    private int _next = firstNumber + 3;

    private int Root => firstNumber;

    private int Document => firstNumber + 1;

    private int ParentTree => firstNumber + 2;

    /// <summary>What the catalogue says of it. Words are taken to be English, as the labels here are.</summary>
    public string InCatalog => $"/StructTreeRoot {Root} 0 R\n/MarkInfo <</Marked true>>\n/Lang (en)\n";

    /// <summary>The dictionary of a page with its content marked.</summary>
    public string Tagged(string page, int number, PdfReading? reading)
    {
        var content = ContentsPattern().Match(page).Groups[1].Value;
        if (reading is null || content.Length == 0)
        {
            return page;
        }

        var (section, parents) = (_next++, new List<int>());
        var marks = new StringBuilder("Q\nEMC\n");
        // The figure comes first in the content, whatever is said before it.
        var figure = Element("Figure", $"/Alt {Words(reading.Described)}");
        var said = new List<int>();
        if (reading.Heading is { } heading)
        {
            said.Add(Said("H1", heading));
        }

        said.Add(figure);
        said.AddRange(reading.Words.Select(w => Said("P", w)));
        var kids = string.Join(' ', said.Select(s => $"{s} 0 R"));
        _objects.Add((section, $"<</Type /StructElem\n/S /Sect\n/P {Document} 0 R\n/K [{kids}]>>"));
        _sections.Add(section);
        _parents.Add(parents);
        var (before, after) = (Stream("/Figure <</MCID 0>> BDC\nq\n"), Stream(marks.ToString()));
        var key = string.Create(CultureInfo.InvariantCulture, $"/StructParents {_parents.Count - 1}");
        var marked = ContentsPattern().Replace(page, $"/Contents [{before} 0 R {content} {after} 0 R]");
        marked = StructParentsPattern().Replace(marked, string.Empty);
        return marked[..marked.LastIndexOf(">>", StringComparison.Ordinal)] + $"\n{key}>>";

        int Said(string role, string words)
        {
            marks.Append(CultureInfo.InvariantCulture, $"/{role} <</MCID {parents.Count}>> BDC\n0 0 m n\nEMC\n");
            return Element(role, $"/ActualText {Words(words)}");
        }

        int Element(string role, string says)
        {
            var own = _next++;
            _objects.Add(
                (
                    own,
                    $"<</Type /StructElem\n/S /{role}\n/P {section} 0 R\n/Pg {number} 0 R\n/K {parents.Count}\n{says}>>"
                )
            );
            parents.Add(own);
            return own;
        }
    }

    /// <summary>Everything else that belongs to it.</summary>
    public IEnumerable<(int Number, string Text)> Objects()
    {
        var sections = string.Join(' ', _sections.Select(s => $"{s} 0 R"));
        var numbers = string.Join(
            '\n',
            _parents.Select(
                (p, i) =>
                    string.Create(CultureInfo.InvariantCulture, $"{i} [{string.Join(' ', p.Select(e => $"{e} 0 R"))}]")
            )
        );
        return
        [
            (
                Root,
                $"<</Type /StructTreeRoot\n/K {Document} 0 R\n/ParentTree {ParentTree} 0 R\n"
                    + $"/ParentTreeNextKey {_parents.Count}>>"
            ),
            (Document, $"<</Type /StructElem\n/S /Document\n/P {Root} 0 R\n/K [{sections}]>>"),
            (ParentTree, $"<</Nums [{numbers}]>>"),
            .. _objects,
        ];
    }

    /// <summary>Any words as a string of a PDF (7.9.2.2).</summary>
    public static string Words(string words) =>
        $"<{Convert.ToHexString(Encoding.BigEndianUnicode.GetBytes($"\uFEFF{words}"))}>";

    private int Stream(string content)
    {
        var number = _next++;
        _objects.Add((number, $"<</Length {content.Length}>> stream\n{content}\nendstream"));
        return number;
    }

    [GeneratedRegex(@"/Contents (\d+ 0 R)")]
    private static partial Regex ContentsPattern();

    [GeneratedRegex(@"/StructParents \d+")]
    private static partial Regex StructParentsPattern();
}
