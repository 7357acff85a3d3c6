using System.Collections.Concurrent;
using HarfBuzzSharp;
using SkiaSharp;
using ZestyPocket.Core.Words;
using HarfBuzzBuffer = HarfBuzzSharp.Buffer;
using HarfBuzzFont = HarfBuzzSharp.Font;

namespace ZestyPocket.Drawing.Words;

/// <summary>
/// The shipped faces, shaped with HarfBuzz. No system font is ever used: a letter that a face lacks is taken from the
/// first shipped face that has it, for measuring and drawing alike.
/// </summary>
public sealed class FontShelf : ITextShaper, IDisposable
{
    private static readonly (Typeface Face, string File)[] Files =
    [
        (Typeface.Sans, "Figtree_400Regular.ttf"),
        (Typeface.SansStrong, "Figtree_600SemiBold.ttf"),
        (Typeface.Serif, "SourceSerif4_400Regular.ttf"),
        (Typeface.Typewriter, "CourierPrime_400Regular.ttf"),
        (Typeface.Handwriting, "Caveat_500Medium.ttf"),
        (Typeface.Display, "BricolageGrotesque_700Bold.ttf"),
    ];

    private static readonly Typeface[] Fallbacks = [Typeface.Serif, Typeface.Sans, Typeface.Handwriting, Typeface.Typewriter];

    /// <summary>
    /// Contextual alternates are off: they look across blanks, so that a line by itself would be set wider or narrower
    /// than the same words were measured in their paragraph.
    /// </summary>
    private static readonly Feature[] NoContext = [new Feature(Tag.Parse("calt"), 0, 0, uint.MaxValue)];

    private readonly Dictionary<Typeface, LoadedFace> _faces;
    private readonly ConcurrentDictionary<(Typeface, string), ShapedText> _shaped = new();

    public FontShelf()
    {
        _faces = Files.ToDictionary(f => f.Face, f => new LoadedFace(f.File));
    }

    public FaceMetrics Metrics(Typeface face) => _faces[face].Metrics;

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
        var x = run.X;
        foreach (var part in Itemise(run.Face, run.Text))
        {
            var face = _faces[part.Face];
            var text = run.Text.Substring(part.Start, part.Length);
            using var buffer = ShapeBuffer(face, text);
            var (infos, places) = (buffer.GlyphInfos, buffer.GlyphPositions);
            if (infos.Length == 0)
            {
                continue;
            }

            using var font = face.At(run.SizePt);
            using var builder = new SKTextBlobBuilder();
            var scale = run.SizePt / face.UnitsPerEm;
            var utf8 = System.Text.Encoding.UTF8.GetBytes(text);
            var run8 = builder.AllocatePositionedTextRun(font, infos.Length, utf8.Length);
            var glyphs = new ushort[infos.Length];
            var points = new SKPoint[infos.Length];
            var clusters = new uint[infos.Length];
            double pen = 0;
            for (var i = 0; i < infos.Length; i++)
            {
                glyphs[i] = (ushort)infos[i].Codepoint;
                points[i] = new SKPoint((float)(pen + (places[i].XOffset * scale)), (float)(-places[i].YOffset * scale));
                clusters[i] = (uint)System.Text.Encoding.UTF8.GetByteCount(text.AsSpan(0, (int)infos[i].Cluster));
                pen += places[i].XAdvance * scale;
            }

            run8.SetGlyphs(glyphs);
            run8.SetPositions(points);
            run8.SetText(utf8);
            run8.SetClusters(clusters);
            using var blob = builder.Build();
            canvas.DrawText(blob, (float)x, (float)run.Baseline, paint);
            x += pen;
        }
    }

    /// <summary>Letters of a text that a face lacks: those another shipped face has, and those none has.</summary>
    public (IReadOnlyList<string> Borrowed, IReadOnlyList<string> Missing) Lacks(Typeface face, string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var lacking = text.EnumerateRunes().Where(r => !System.Text.Rune.IsWhiteSpace(r) && !System.Text.Rune.IsControl(r) && !_faces[face].Has(r.Value)).Distinct().ToList();
        return (
            [.. lacking.Where(r => Fallbacks.Any(f => _faces[f].Has(r.Value))).Select(r => r.ToString())],
            [.. lacking.Where(r => !Fallbacks.Any(f => _faces[f].Has(r.Value))).Select(r => r.ToString())]);
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

    private ShapedText Measure(Typeface face, string text)
    {
        var advances = new double[text.Length];
        foreach (var part in Itemise(face, text))
        {
            var loaded = _faces[part.Face];
            using var buffer = ShapeBuffer(loaded, text.Substring(part.Start, part.Length));
            var (infos, places) = (buffer.GlyphInfos, buffer.GlyphPositions);
            for (var i = 0; i < infos.Length; i++)
            {
                advances[part.Start + (int)infos[i].Cluster] += (double)places[i].XAdvance / loaded.UnitsPerEm;
            }
        }

        var ends = new double[text.Length + 1];
        for (var i = 0; i < text.Length; i++)
        {
            ends[i + 1] = ends[i] + advances[i];
        }

        return new ShapedText(text, ends);
    }

    private readonly record struct Part(Typeface Face, int Start, int Length);

    private List<Part> Itemise(Typeface face, string text)
    {
        var parts = new List<Part>();
        var at = 0;
        while (at < text.Length)
        {
            var length = char.IsSurrogatePair(text, at) ? 2 : 1;
            var rune = length == 2 ? char.ConvertToUtf32(text, at) : text[at];
            var used = _faces[face].Has(rune) ? face : Fallbacks.FirstOrDefault(f => _faces[f].Has(rune), face);
            if (parts.Count > 0 && parts[^1].Face == used)
            {
                parts[^1] = parts[^1] with { Length = parts[^1].Length + length };
            }
            else
            {
                parts.Add(new Part(used, at, length));
            }

            at += length;
        }

        return parts;
    }

    private static HarfBuzzBuffer ShapeBuffer(LoadedFace face, string text)
    {
        var buffer = new HarfBuzzBuffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        face.HarfBuzz.Shape(buffer, NoContext);
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
            using var stream = typeof(FontShelf).Assembly.GetManifestResourceStream($"Fonts/{file}")
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
            Metrics = new FaceMetrics(-font.Metrics.Ascent / (double)UnitsPerEm, font.Metrics.Descent / (double)UnitsPerEm);
        }

        public int UnitsPerEm { get; }

        public HarfBuzzFont HarfBuzz { get; }

        public FaceMetrics Metrics { get; }

        public bool Has(int rune) =>
            rune is ' ' or '\t' or '\u00A0' or '\u200B' or '\u00AD' || HarfBuzz.TryGetNominalGlyph((uint)rune, out _);

        public SKFont At(double size) => new(_skia, (float)size)
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
