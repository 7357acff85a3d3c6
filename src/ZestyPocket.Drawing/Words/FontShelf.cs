using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using HarfBuzzSharp;
using SkiaSharp;
using ZestyPocket.Core.Words;
using HarfBuzzBuffer = HarfBuzzSharp.Buffer;
using HarfBuzzFont = HarfBuzzSharp.Font;

namespace ZestyPocket.Drawing.Words;

/// <summary>
/// The shipped faces, shaped with HarfBuzz. No system font is ever used: a letter that a face lacks is taken from a
/// shipped face of the same kind, else from the first that has it, for measuring and drawing alike. Text that runs from
/// right to left is parted into runs by UAX #9 and each run is shaped in its own direction.
/// </summary>
public sealed class FontShelf : ITextShaper, IDisposable
{
    private const string NotoSans = "NotoSans_400Regular.ttf";
    private const string NotoSansStrong = "NotoSans_600SemiBold.ttf";
    private const string SourceSerif = "SourceSerif4_400Regular.ttf";
    private const string Cousine = "Cousine_400Regular.ttf";
    private const string Caveat = "Caveat_500Medium.ttf";

    /// <summary>Each face with those of its kind that have more letters.</summary>
    private static readonly Dictionary<Typeface, string[]> Kinds = new()
    {
        [Typeface.Sans] = ["Figtree_400Regular.ttf", NotoSans],
        [Typeface.SansStrong] = ["Figtree_600SemiBold.ttf", NotoSansStrong],
        [Typeface.Serif] = [SourceSerif],
        [Typeface.Typewriter] = ["CourierPrime_400Regular.ttf", Cousine],
        [Typeface.Handwriting] = [Caveat, "Mynerve_400Regular.ttf"],
        [Typeface.Display] = ["BricolageGrotesque_700Bold.ttf", NotoSansStrong],
        [Typeface.BookSerif] = [SourceSerif],
        [Typeface.BookSmallCapitals] = [SourceSerif],
        [Typeface.BookItalic] = ["SourceSerif4_400Regular_Italic.ttf", SourceSerif],
        [Typeface.OldStyle] = ["Fraunces_300Light.ttf", SourceSerif],
        [Typeface.OldStyleItalic] = ["Fraunces_400Regular_Italic.ttf", SourceSerif],
        [Typeface.Poster] = ["ArchivoBlack_400Regular.ttf", NotoSansStrong],
        [Typeface.Condensed] = ["BarlowCondensed_600SemiBold.ttf", NotoSansStrong],
        [Typeface.Grotesque] = ["Barlow_500Medium.ttf", NotoSans],
        [Typeface.Rounded] = ["Fredoka_600SemiBold.ttf", NotoSansStrong],
        [Typeface.Mono] = ["SpaceMono_400Regular.ttf", Cousine],
        [Typeface.MonoStrong] = ["SpaceMono_700Bold.ttf", Cousine],
    };

    /// <summary>
    /// Forms of figures and letters that a face is asked for, where its font has them. Source: OpenType layout tag
    /// registry, onum and smcp.
    /// </summary>
    private static readonly Dictionary<Typeface, Feature[]> Forms = new()
    {
        [Typeface.BookSerif] = [On("onum")],
        [Typeface.BookItalic] = [On("onum")],
        [Typeface.BookSmallCapitals] = [On("onum"), On("smcp")],
    };

    /// <summary>What is asked last, whatever the kind.</summary>
    private static readonly string[] Others =
    [
        NotoSans,
        SourceSerif,
        "NotoSansHebrew_400Regular.ttf",
        "NotoSansArabic_400Regular.ttf",
        Caveat,
        Cousine,
    ];

    /// <summary>
    /// Contextual alternates are off: they look across blanks, so that a line by itself would be set wider or narrower
    /// than the same words were measured in their paragraph. Scripts whose letters join keep theirs.
    /// </summary>
    private static readonly Feature NoContext = new(Tag.Parse("calt"), 0, 0, uint.MaxValue);

    private static Feature On(string tag) => new(Tag.Parse(tag), 1, 0, uint.MaxValue);

    /// <summary>A tab is a wide blank, in ems. Common practice: about three letters.</summary>
    private const double TabEm = 1.5;

    private readonly Dictionary<string, LoadedFace> _faces;
    private readonly Dictionary<Typeface, LoadedFace[]> _chains;
    private readonly ConcurrentDictionary<(Typeface, string), ShapedText> _shaped = new();

    public FontShelf()
    {
        _faces = Kinds.Values.SelectMany(k => k).Union(Others).ToDictionary(f => f, f => new LoadedFace(f));
        _chains = Kinds.ToDictionary(k => k.Key, k => k.Value.Union(Others).Select(f => _faces[f]).ToArray());
    }

    public FaceMetrics Metrics(Typeface face) => _chains[face][0].Metrics;

    public ShapedText Shape(Typeface face, string paragraph)
    {
        ArgumentNullException.ThrowIfNull(paragraph);
        if (_shaped.Count > 2_000)
        {
            _shaped.Clear();
        }

        return _shaped.GetOrAdd((face, paragraph), key => Measure(key.Item1, key.Item2));
    }

    /// <summary>Draws one line of type with its baseline at (x, baseline), in points.</summary>
    public void Draw(SKCanvas canvas, in TypeRun run)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        using var paint = new SKPaint { Color = new SKColor(run.Ink.R, run.Ink.G, run.Ink.B), IsAntialias = true };
        var levels = run.Levels.IsDefault ? Directions.LevelsOf(run.Text).Levels : run.Levels;
        var x = run.X;
        foreach (var part in Directions.InVisualOrder(Itemise(run.Face, run.Text, levels), p => p.Level))
        {
            x += part.Face is null
                ? TabEm * run.SizePt
                : Draw(canvas, paint, part, run.Text.Substring(part.Start, part.Length), x, run);
        }
    }

    /// <summary>Letters of a text that a face lacks: those another shipped face has, and those none has.</summary>
    public (IReadOnlyList<string> Borrowed, IReadOnlyList<string> Missing) Lacks(Typeface face, string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var chain = _chains[face];
        var lacking = text.EnumerateRunes()
            .Where(r => !Rune.IsWhiteSpace(r) && !Rune.IsControl(r) && !chain[0].Has(r.Value))
            .Distinct()
            .ToList();
        return (
            [.. lacking.Where(r => chain.Any(f => f.Has(r.Value))).Select(r => r.ToString())],
            [.. lacking.Where(r => !chain.Any(f => f.Has(r.Value))).Select(r => r.ToString())]
        );
    }

    /// <summary>Which shipped face each letter of a text is taken from, by file name; for checks.</summary>
    public IReadOnlyList<(string Text, string File)> Sources(Typeface face, string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return
        [
            .. Itemise(face, text, default)
                .Where(p => p.Face is not null)
                .Select(p => (text.Substring(p.Start, p.Length), p.Face!.File)),
        ];
    }

    /// <summary>Width in points of one line.</summary>
    public double Width(Typeface face, double sizePt, string text) => Measure(face, text).Ends[^1] * sizePt;

    public void Dispose()
    {
        foreach (var face in _faces.Values)
        {
            face.Dispose();
        }
    }

    /// <summary>Draws a part in one face and direction; gives how far it reaches, in points.</summary>
    private static double Draw(SKCanvas canvas, SKPaint paint, Part part, string text, double x, in TypeRun run)
    {
        using var buffer = ShapeBuffer(part.Face!, run.Face, text, part.Level);
        var (infos, places) = (buffer.GlyphInfos, buffer.GlyphPositions);
        if (infos.Length == 0)
        {
            return 0;
        }

        using var font = part.Face!.At(run.SizePt);
        using var builder = new SKTextBlobBuilder();
        var scale = run.SizePt / part.Face.UnitsPerEm;
        var utf8 = Encoding.UTF8.GetBytes(text);
        var run8 = builder.AllocatePositionedTextRun(font, infos.Length, utf8.Length);
        var glyphs = new ushort[infos.Length];
        var points = new SKPoint[infos.Length];
        var clusters = new uint[infos.Length];
        double pen = 0;
        for (var i = 0; i < infos.Length; i++)
        {
            glyphs[i] = (ushort)infos[i].Codepoint;
            points[i] = new SKPoint((float)(pen + (places[i].XOffset * scale)), (float)(-places[i].YOffset * scale));
            clusters[i] = (uint)Encoding.UTF8.GetByteCount(text.AsSpan(0, (int)infos[i].Cluster));
            pen += (places[i].XAdvance * scale) + (run.Tracking * run.SizePt);
        }

        run8.SetGlyphs(glyphs);
        run8.SetPositions(points);
        run8.SetText(utf8);
        run8.SetClusters(clusters);
        using var blob = builder.Build();
        canvas.DrawText(blob, (float)x, (float)run.Baseline, paint);
        return pen;
    }

    private ShapedText Measure(Typeface face, string text)
    {
        var (levels, rightToLeft) = Directions.LevelsOf(text);
        var advances = new double[text.Length];
        foreach (var part in Itemise(face, text, levels))
        {
            if (part.Face is null)
            {
                advances[part.Start] += TabEm;
                continue;
            }

            using var buffer = ShapeBuffer(part.Face, face, text.Substring(part.Start, part.Length), part.Level);
            var (infos, places) = (buffer.GlyphInfos, buffer.GlyphPositions);
            for (var i = 0; i < infos.Length; i++)
            {
                advances[part.Start + (int)infos[i].Cluster] += (double)places[i].XAdvance / part.Face.UnitsPerEm;
            }
        }

        // A mark can pull its letter back: both count as one width, and no stretch is less than nothing.
        for (var i = text.Length - 1; i > 0; i--)
        {
            var back = Math.Min(0, advances[i]);
            advances[i] -= back;
            advances[i - 1] += back;
        }

        var ends = new double[text.Length + 1];
        for (var i = 0; i < text.Length; i++)
        {
            ends[i + 1] = ends[i] + advances[i];
        }

        return new ShapedText(text, ends) { Levels = levels, RightToLeft = rightToLeft };
    }

    /// <summary>A stretch of one face and one direction; a tab has no face.</summary>
    private readonly record struct Part(LoadedFace? Face, int Start, int Length, byte Level);

    /// <summary>Parts a text, in reading order. A letter and its marks are of one face.</summary>
    private List<Part> Itemise(Typeface face, string text, ImmutableArray<byte> levels)
    {
        var (parts, chain) = (new List<Part>(), _chains[face]);
        for (var at = 0; at < text.Length; )
        {
            var length = StringInfo.GetNextTextElementLength(text, at);
            var level = levels.IsDefault ? (byte)0 : levels[at];
            var used = text[at] == '\t' ? null : FaceOf(chain, text.AsSpan(at, length));
            if (used is not null && parts.Count > 0 && parts[^1].Face == used && parts[^1].Level == level)
            {
                parts[^1] = parts[^1] with { Length = parts[^1].Length + length };
            }
            else
            {
                parts.Add(new Part(used, at, length, level));
            }

            at += length;
        }

        return parts;
    }

    /// <summary>
    /// The first face that has a letter with all its marks, composed where Unicode composes them; else the first that
    /// has the letter.
    /// </summary>
    private static LoadedFace FaceOf(LoadedFace[] chain, ReadOnlySpan<char> letter)
    {
        if (letter.Length == 1 && chain[0].Has(letter[0]))
        {
            return chain[0];
        }

        var composed = PlainWords.Composed(letter.ToString()).EnumerateRunes().ToArray();
        return Array.Find(chain, f => Array.TrueForAll(composed, r => f.Has(r.Value)))
            ?? Array.Find(chain, f => f.Has(composed[0].Value))
            ?? chain[0];
    }

    private static HarfBuzzBuffer ShapeBuffer(LoadedFace face, Typeface asked, string text, byte level)
    {
        var buffer = new HarfBuzzBuffer();
        buffer.AddUtf16(text);
        buffer.Direction = level % 2 == 0 ? Direction.LeftToRight : Direction.RightToLeft;
        buffer.GuessSegmentProperties();
        Feature[] forms = Forms.TryGetValue(asked, out var own) ? own : [];
        face.HarfBuzz.Shape(buffer, level % 2 == 0 ? [NoContext, .. forms] : forms);
        return buffer;
    }

    private sealed class LoadedFace : IDisposable
    {
        private readonly SKTypeface _skia;
        private readonly Blob _blob;
        private readonly Face _face;
        private readonly SKData _data;

        public LoadedFace(string file)
        {
            File = file;
            using var stream =
                typeof(FontShelf).Assembly.GetManifestResourceStream($"Fonts/{file}")
                ?? throw new InvalidOperationException($"The face {file} is not in the program.");
            _data = SKData.Create(stream);
            _skia = SKTypeface.FromData(_data);
            // The blob reads the native memory that _data keeps alive; a managed array could be moved under it.
            _blob = new Blob(_data.Data, (int)_data.Size, MemoryMode.ReadOnly);
            _face = new Face(_blob, 0);
            UnitsPerEm = _face.UnitsPerEm;
            HarfBuzz = new HarfBuzzFont(_face);
            HarfBuzz.SetScale(UnitsPerEm, UnitsPerEm);
            HarfBuzz.SetFunctionsOpenType();
            using var font = At(UnitsPerEm);
            Metrics = new FaceMetrics(
                -font.Metrics.Ascent / (double)UnitsPerEm,
                font.Metrics.Descent / (double)UnitsPerEm
            );
        }

        public string File { get; }

        public int UnitsPerEm { get; }

        public HarfBuzzFont HarfBuzz { get; }

        public FaceMetrics Metrics { get; }

        /// <summary>Blanks and signs that only steer are never drawn, so every face has them.</summary>
        public bool Has(int rune) =>
            rune
                is ' '
                    or '\t'
                    or '\u00A0'
                    or '\u00AD'
                    or '\uFEFF'
                    or (>= 0x200B and <= 0x200F)
                    or (>= 0x202A and <= 0x202E)
                    or (>= 0x2060 and <= 0x206F)
                    or (>= 0xFE00 and <= 0xFE0F)
            || HarfBuzz.TryGetNominalGlyph((uint)rune, out _);

        public SKFont At(double size) =>
            new(_skia, (float)size)
            {
                Subpixel = true,
                LinearMetrics = true,
                Hinting = SKFontHinting.None,
                Edging = SKFontEdging.Antialias,
            };

        public void Dispose()
        {
            HarfBuzz.Dispose();
            _face.Dispose();
            _blob.Dispose();
            _skia.Dispose();
            _data.Dispose();
        }
    }
}
