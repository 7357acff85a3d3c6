using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using NetVips;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Printing;

/// <summary>One page of a PDF: its size in points and what is drawn on it.</summary>
public sealed record PdfPage(double WidthPt, double HeightPt, Action<SKCanvas> Draw)
{
    /// <summary>What is left when everything is cut, from the top left corner; null for the whole page.</summary>
    public Rect? Trim { get; init; }

    /// <summary>How far beyond the trim is printed, in points.</summary>
    public double BleedPt { get; init; }

    /// <summary>What a screen reader says of it; null for a page that is only printed.</summary>
    public PdfReading? Reading { get; init; }

    internal string Boxes(string media)
    {
        if (Trim is not { } trim)
        {
            return $"/TrimBox {media}\n/BleedBox {media}\n/CropBox {media}\n";
        }

        return $"/TrimBox {Box(0)}\n/BleedBox {Box(BleedPt)}\n/CropBox {media}\n";

        // PDF measures from the foot of the page.
        string Box(double around) =>
            string.Create(
                CultureInfo.InvariantCulture,
                $"[{trim.X.Points - around:0.####} {HeightPt - trim.Bottom.Points - around:0.####} "
                    + $"{trim.Right.Points + around:0.####} {HeightPt - trim.Y.Points + around:0.####}]"
            );
    }
}

/// <summary>An entry of a PDF's table of contents.</summary>
/// <param name="Page">The page it leads to, from 0.</param>
public sealed record PdfBookmark(string Title, int Page);

/// <summary>
/// Writes PDFs for print: pages drawn by the painters, then, as an appended update (ISO 32000-1, 7.5.6), the page
/// boxes (14.11.2), an sRGB output intent (14.11.5) and the request that the printer dialog does not scale
/// (12.2, PrintScaling). No conformance to PDF/X or PDF/A is claimed.
/// </summary>
public static partial class PdfFile
{
    /// <summary>Fixed, so that the same pages give the same bytes; it is not a date of anything.</summary>
    private static readonly DateTime Epoch = new(2000, 1, 1, 0, 0, 0, DateTimeKind.Utc);

    /// <summary>
    /// Writes the pages to a file that can be read and written. The file is whole only when this returns; callers
    /// write to a temporary name and rename.
    /// </summary>
    /// <param name="bookmarks">The table of contents (ISO 32000-1, 12.3.3); none for a file that has none.</param>
    public static void Write(
        FileStream file,
        string title,
        IEnumerable<PdfPage> pages,
        IReadOnlyList<PdfBookmark>? bookmarks = null
    )
    {
        ArgumentNullException.ThrowIfNull(file);
        ArgumentNullException.ThrowIfNull(pages);
        var metadata = new SKDocumentPdfMetadata
        {
            Title = title,
            Producer = "Zesty Pocket",
            Creator = "Zesty Pocket",
            Creation = Epoch,
            Modified = Epoch,
            // The page size is rounded to this; nothing drawn here is ever turned into pixels by the PDF writer.
            RasterDpi = 7200,
            EncodingQuality = 92,
        };
        var drawn = new List<PdfPage>();
        using (var sink = new SKManagedWStream(file, disposeManagedStream: false))
        using (var document = SKDocument.CreatePdf(sink, metadata))
        {
            foreach (var page in pages)
            {
                drawn.Add(page with { Draw = static _ => { } });
                var canvas = document.BeginPage((float)page.WidthPt, (float)page.HeightPt);
                page.Draw(canvas);
                document.EndPage();
            }

            document.Close();
        }

        file.Flush();
        AppendBoxesAndIntent(file, drawn, bookmarks ?? []);
        file.Flush();
    }

    /// <summary>The file of a few pages, held in memory.</summary>
    public static byte[] Bytes(string title, IEnumerable<PdfPage> pages)
    {
        var path = Path.GetTempFileName();
        try
        {
            using (var file = new FileStream(path, FileMode.Truncate, FileAccess.ReadWrite))
            {
                Write(file, title, pages);
            }

            return File.ReadAllBytes(path);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static void AppendBoxesAndIntent(FileStream file, List<PdfPage> drawn, IReadOnlyList<PdfBookmark> bookmarks)
    {
        var xrefAt = StartXref(file);
        var (offsets, trailer) = ReadXref(file, xrefAt);
        var root = int.Parse(RootPattern().Match(trailer).Groups[1].Value, CultureInfo.InvariantCulture);
        var size = int.Parse(SizePattern().Match(trailer).Groups[1].Value, CultureInfo.InvariantCulture);
        var (profileNumber, intentNumber) = (size, size + 1);
        var written = new SortedDictionary<int, long>();

        file.Seek(0, SeekOrigin.End);
        // Pages are numbered in the order they were drawn.
        var pageNumbers = new List<int>();
        var tree = drawn.Exists(p => p.Reading is not null)
            ? new PdfStructure(size + 2 + (bookmarks.Count > 0 ? bookmarks.Count + 1 : 0))
            : null;
        foreach (var (number, offset) in offsets.OrderBy(o => o.Key))
        {
            if (ReadPage(file, offset) is { } page)
            {
                var of = drawn[pageNumbers.Count];
                var box = MediaBoxPattern().Match(page).Groups[1].Value;
                var tagged = tree is null ? page : tree.Tagged(page, number, of.Reading);
                Append(number, Insert(tagged, of.Boxes(box)));
                pageNumbers.Add(number);
            }
        }

        foreach (var (number, text) in tree?.Objects() ?? [])
        {
            Append(number, text);
        }

        var profile = SrgbProfile();
        written[profileNumber] = file.Seek(0, SeekOrigin.End);
        Text($"{profileNumber} 0 obj\n<</N 3\n/Length {profile.Length}>> stream\n");
        file.Write(profile);
        Text($"\nendstream\nendobj\n");
        Append(
            intentNumber,
            "<</Type /OutputIntent\n/S /GTS_PDFX\n/OutputConditionIdentifier (sRGB IEC61966-2.1)\n/Info (sRGB "
                + $"IEC61966-2.1)\n/DestOutputProfile {profileNumber} 0 R>>"
        );
        var (outlines, first) = (size + 2, size + 3);
        if (bookmarks.Count > 0)
        {
            var last = first + bookmarks.Count - 1;
            Append(outlines, $"<</Type /Outlines\n/First {first} 0 R\n/Last {last} 0 R\n/Count {bookmarks.Count}>>");
            for (var i = 0; i < bookmarks.Count; i++)
            {
                var before = i > 0 ? $"/Prev {first + i - 1} 0 R\n" : string.Empty;
                var after = first + i < last ? $"/Next {first + i + 1} 0 R\n" : string.Empty;
                Append(
                    first + i,
                    $"<</Title {PdfStructure.Words(bookmarks[i].Title)}\n"
                        + $"/Parent {outlines} 0 R\n{before}{after}/Dest [{pageNumbers[bookmarks[i].Page]} 0 R /Fit]>>"
                );
            }
        }

        // The drawn file has viewer preferences of its own (show the title): they are carried over, not doubled.
        var catalog = ReadObject(file, offsets[root], 1 << 20);
        var preferences = ViewerPreferencesPattern().Match(catalog);
        var others = preferences.Success ? preferences.Groups[1].Value : string.Empty;
        catalog = ViewerPreferencesPattern().Replace(catalog, string.Empty);
        Append(
            root,
            Insert(
                catalog,
                $"/OutputIntents [{intentNumber} 0 R]\n/ViewerPreferences <<{others} /PrintScaling /None>>\n"
                    + (bookmarks.Count > 0 ? $"/Outlines {outlines} 0 R\n/PageMode /UseOutlines\n" : string.Empty)
                    + tree?.InCatalog
            )
        );

        var xref = file.Seek(0, SeekOrigin.End);
        Text($"xref\n");
        foreach (var (number, offset) in written)
        {
            Text($"{number} 1\n{offset:0000000000} 00000 n \n");
        }

        var newTrailer = SizePattern().Replace(trailer, $"/Size {Math.Max(size, written.Keys.Max() + 1)}");
        Text($"trailer\n{Insert(newTrailer, $"/Prev {xrefAt}\n")}\nstartxref\n{xref}\n%%EOF\n");

        void Append(int number, string dictionary)
        {
            written[number] = file.Seek(0, SeekOrigin.End);
            Text($"{number} 0 obj\n{dictionary}\nendobj\n");
        }

        void Text(FormattableString text) =>
            file.Write(Encoding.Latin1.GetBytes(text.ToString(CultureInfo.InvariantCulture)));
    }

    /// <summary>Puts entries before the closing brackets of a dictionary.</summary>
    private static string Insert(string dictionary, string entries)
    {
        var end = dictionary.LastIndexOf(">>", StringComparison.Ordinal);
        return dictionary[..end] + "\n" + entries + dictionary[end..].TrimEnd();
    }

    private static long StartXref(FileStream file)
    {
        var tail = new byte[Math.Min(1024, file.Length)];
        file.Seek(-tail.Length, SeekOrigin.End);
        file.ReadExactly(tail);
        var match =
            StartXrefPattern().Matches(Encoding.Latin1.GetString(tail)).LastOrDefault()
            ?? throw new InvalidOperationException("The drawn PDF has no cross-reference table.");
        return long.Parse(match.Groups[1].Value, CultureInfo.InvariantCulture);
    }

    private static (SortedDictionary<int, long> Offsets, string Trailer) ReadXref(FileStream file, long at)
    {
        file.Seek(at, SeekOrigin.Begin);
        using var reader = new StreamReader(file, Encoding.Latin1, false, 4096, leaveOpen: true);
        if (reader.ReadLine()?.Trim() != "xref")
        {
            throw new InvalidOperationException("The drawn PDF has an unexpected cross-reference table.");
        }

        var offsets = new SortedDictionary<int, long>();
        string? line;
        while ((line = reader.ReadLine()) is not null && !line.StartsWith("trailer", StringComparison.Ordinal))
        {
            var parts = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            var (first, count) = (
                int.Parse(parts[0], CultureInfo.InvariantCulture),
                int.Parse(parts[1], CultureInfo.InvariantCulture)
            );
            for (var i = 0; i < count; i++)
            {
                var entry = reader.ReadLine()!.Split(' ', StringSplitOptions.RemoveEmptyEntries);
                if (entry[2] == "n")
                {
                    offsets[first + i] = long.Parse(entry[0], CultureInfo.InvariantCulture);
                }
            }
        }

        var rest = line![7..] + "\n" + reader.ReadToEnd();
        return (
            offsets,
            rest[rest.IndexOf("<<", StringComparison.Ordinal)..rest.IndexOf("startxref", StringComparison.Ordinal)]
                .Trim()
        );
    }

    private static string? ReadPage(FileStream file, long offset)
    {
        var start = ReadObject(file, offset, 64);
        return PagePattern().IsMatch(start) ? ReadObject(file, offset, 1 << 20) : null;
    }

    /// <summary>The dictionary of an object, at most so many bytes of it, without its obj and endobj words.</summary>
    private static string ReadObject(FileStream file, long offset, int most)
    {
        var bytes = new byte[Math.Min(most, file.Length - offset)];
        file.Seek(offset, SeekOrigin.Begin);
        file.ReadExactly(bytes);
        var text = Encoding.Latin1.GetString(bytes);
        var (from, to) = (
            text.IndexOf("obj", StringComparison.Ordinal) + 3,
            text.IndexOf("endobj", StringComparison.Ordinal)
        );
        return (to < 0 ? text[from..] : text[from..to]).Trim();
    }

    private static readonly Lazy<byte[]> Profile = new(() =>
    {
        PhotoEngine.Start();
        using var pixel = Image.Black(1, 1, bands: 3).Copy(interpretation: Enums.Interpretation.Srgb);
        using var tagged = pixel.Cast(Enums.BandFormat.Uchar).IccTransform("srgb", inputProfile: "srgb");
        return (byte[])tagged.Get("icc-profile-data");
    });

    private static byte[] SrgbProfile() => Profile.Value;

    [GeneratedRegex(@"startxref\s+(\d+)")]
    private static partial Regex StartXrefPattern();

    [GeneratedRegex(@"/Root (\d+) 0 R")]
    private static partial Regex RootPattern();

    [GeneratedRegex(@"/Size (\d+)")]
    private static partial Regex SizePattern();

    [GeneratedRegex(@"/MediaBox (\[[^\]]*\])")]
    private static partial Regex MediaBoxPattern();

    [GeneratedRegex(@"/ViewerPreferences\s*<<([^>]*)>>")]
    private static partial Regex ViewerPreferencesPattern();

    [GeneratedRegex(@"^<<\s*/Type\s*/Page\s")]
    private static partial Regex PagePattern();
}
