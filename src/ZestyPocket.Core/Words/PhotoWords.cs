using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Words on a print, where they were put and in which ink.</summary>
/// <param name="Words">At most <see cref="LongestWords"/> characters.</param>
/// <param name="Face">The typeface.</param>
/// <param name="SizePt">7 to 200.</param>
/// <param name="X">Left edge of the words, as a share of the print's width.</param>
/// <param name="Y">Upper edge of the words, as a share of its height.</param>
/// <param name="Width">Their width, as a share of its width.</param>
/// <param name="Ink">Of the words.</param>
/// <param name="Label">Ground behind the words; null when they stand on the picture itself.</param>
public sealed record PhotoCaption(
    string Words,
    Typeface Face,
    double SizePt,
    double X,
    double Y,
    double Width,
    Rgb Ink,
    Rgb? Label
)
{
    public const int LongestWords = 200;

    /// <summary>Throws <see cref="RuleException"/> when a value makes no sense.</summary>
    public PhotoCaption Checked() =>
        string.IsNullOrWhiteSpace(Words) || Words.Length > LongestWords
            ? throw new RuleException(
                $"Words on a picture are 1 to {LongestWords} characters long. Nothing was changed: a journaling "
                    + "card holds more."
            )
        : SizePt is not (>= TypeRange.SmallestEverPt and <= 200)
        || X is not (>= 0 and < 1)
        || Y is not (>= 0 and < 1)
        || Width is not (> 0 and <= 1)
            ? throw new RuleException(
                "Those words would not lie on the picture. Nothing was changed: find a place for them again."
            )
        : this;
}

/// <summary>How light and how busy a print is, cell by cell, rows from the top.</summary>
/// <param name="Columns">At least 1.</param>
/// <param name="Rows">At least 1.</param>
/// <param name="Luminance">Relative luminance of each cell's mean, 0 to 1 (WCAG).</param>
/// <param name="Detail">Standard deviation of lightness inside each cell, 0 to 0.5.</param>
public sealed record ToneMap(int Columns, int Rows, ImmutableArray<double> Luminance, ImmutableArray<double> Detail);

/// <summary>A place for words on a print.</summary>
/// <param name="Caption">The words there.</param>
/// <param name="Contrast">Of the ink against nineteen twentieths of what is behind it (1 to 21).</param>
/// <param name="Detail">How busy it is there, 0 to 0.5.</param>
public sealed record QuietSpot(PhotoCaption Caption, double Contrast, double Detail)
{
    /// <summary>Whether the words are hard to read without a label behind them.</summary>
    public bool WantsLabel => Contrast < PhotoWords.ReadableContrast;
}

/// <summary>Finds quiet places for words on pictures.</summary>
public static class PhotoWords
{
    /// <summary>Under this, to 1, words are hard to read. Source: WCAG 2.2, success criterion 1.4.3.</summary>
    public const double ReadableContrast = 4.5;

    /// <summary>A cell busier than this disturbs letters on it. Measured on the program's own snapshots.</summary>
    public const double QuietDetail = 0.06;

    private const int Bins = 32;

    private const double LabelPadPt = 5;

    /// <summary>Words keep away from the cut. Common practice.</summary>
    private const double EdgePt = 9;

    public static Rgb White { get; } = Rgb.Hex("#ffffff");

    public static Rgb Dark { get; } = Rgb.Hex("#2b2622");

    /// <summary>
    /// The best place for words: the largest of the given sizes that has a quiet place with readable ink, away from
    /// what must be kept visible; if none has, the best place there is at the smallest size.
    /// </summary>
    /// <param name="words">The words.</param>
    /// <param name="face">Their face.</param>
    /// <param name="sizes">Sizes in points, largest first, at least one.</param>
    /// <param name="cut">The print.</param>
    /// <param name="tones">How the print looks.</param>
    /// <param name="keep">Boxes to stay off, as shares of the print.</param>
    /// <param name="shaper">Measures the words.</param>
    public static QuietSpot? Find(
        string words,
        Typeface face,
        IReadOnlyList<double> sizes,
        Size cut,
        ToneMap tones,
        IReadOnlyList<(double X, double Y, double Width, double Height)> keep,
        ITextShaper shaper
    )
    {
        ArgumentNullException.ThrowIfNull(sizes);
        ArgumentNullException.ThrowIfNull(tones);
        var sums = new Sums(tones);
        QuietSpot? best = null;
        foreach (var size in sizes)
        {
            var found = Shapes(words, face, size, cut, shaper)
                .Select(shape => Place(words, face, size, shape, cut, tones, sums, keep))
                .OfType<(QuietSpot Spot, double Cost)>()
                .OrderBy(s => s.Cost)
                .Select(s => s.Spot)
                .FirstOrDefault();
            if (found is null)
            {
                continue;
            }

            if (!found.WantsLabel && found.Detail <= QuietDetail)
            {
                return found;
            }

            // Smaller words need less room, so the last is the best of the bad.
            best = best is null || found.Contrast > best.Contrast || found.Detail < best.Detail ? found : best;
        }

        return best;
    }

    /// <summary>How well words that lie somewhere already can be read there.</summary>
    public static double Contrast(PhotoCaption caption, Size cut, ToneMap tones, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(caption);
        ArgumentNullException.ThrowIfNull(tones);
        if (caption.Label is { } label)
        {
            return Rgb.Contrast(caption.Ink, label);
        }

        var set = Set(caption, cut, shaper);
        var (left, top, right, bottom) = Cells(
            caption.X * cut.Width.Points,
            caption.Y * cut.Height.Points,
            Widest(set),
            High(set, caption.Face, shaper),
            cut,
            tones
        );
        return WorstContrast(new Sums(tones).Histogram(left, top, right, bottom), caption.Ink);
    }

    /// <summary>Whether the words still lie inside the print: after a move it may have another size.</summary>
    public static bool Inside(PhotoCaption caption, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(caption);
        var set = Set(caption, cut, shaper);
        return (caption.X * cut.Width.Points) + Widest(set) <= cut.Width.Points + 0.5
            && (caption.Y * cut.Height.Points) + High(set, caption.Face, shaper) <= cut.Height.Points + 0.5;
    }

    /// <summary>The same words on a label of the other tone, in readable ink.</summary>
    public static PhotoCaption OnLabel(PhotoCaption caption)
    {
        ArgumentNullException.ThrowIfNull(caption);
        // The ink that suits the picture says which tone the picture has: the label keeps that tone.
        var label = caption.Ink == White ? Dark : White;
        return caption with { Label = label };
    }

    /// <summary>What is drawn over the print: the label if there is one, and the lines.</summary>
    public static (ImmutableArray<InkBox> Boxes, ImmutableArray<TypeRun> Runs) Draw(
        PhotoCaption caption,
        Size cut,
        ITextShaper shaper
    )
    {
        ArgumentNullException.ThrowIfNull(caption);
        ArgumentNullException.ThrowIfNull(shaper);
        var set = Set(caption, cut, shaper);
        var (x, y) = (caption.X * cut.Width.Points, caption.Y * cut.Height.Points);
        ImmutableArray<InkBox> boxes = caption.Label is { } label
            ?
            [
                new InkBox(
                    x - LabelPadPt,
                    y - LabelPadPt,
                    Widest(set) + (2 * LabelPadPt),
                    High(set, caption.Face, shaper) + (2 * LabelPadPt),
                    label
                ),
            ]
            : [];
        return (
            boxes,
            [
                .. set
                    .Lines.Where(l => l.Text.Length > 0)
                    .Select(l =>
                        TypeRun.Of(l, caption.Face, set.SizePt, caption.Ink) with
                        {
                            X = x + l.X,
                            Baseline = y + l.Baseline,
                        }
                    ),
            ]
        );
    }

    private static FitOutcome Set(PhotoCaption caption, Size cut, ITextShaper shaper) =>
        Copyfit.Fit(
            caption.Words,
            (caption.Width * cut.Width.Points) + 0.01,
            cut.Height.Points * 4,
            new TypeRange(caption.Face, caption.SizePt, caption.SizePt, 1.12),
            shaper
        );

    private static double Widest(FitOutcome set) => set.Lines.IsEmpty ? 0 : set.Lines.Max(l => l.Width);

    private static double High(FitOutcome set, Typeface face, ITextShaper shaper) =>
        set.Lines.IsEmpty ? 0 : set.Lines[^1].Baseline + (shaper.Metrics(face).Descent * set.SizePt);

    /// <summary>
    /// The words in one line, two, three: each a width and a height in points that lie inside the print.
    /// </summary>
    private static IEnumerable<(double Width, double Height)> Shapes(
        string words,
        Typeface face,
        double size,
        Size cut,
        ITextShaper shaper
    )
    {
        var room = (Width: cut.Width.Points - (2 * EdgePt), Height: cut.Height.Points - (2 * EdgePt));
        var seen = new HashSet<int>();
        foreach (var share in new[] { 1.0, 0.75, 0.5, 0.35 })
        {
            var set = Copyfit.Fit(
                words,
                room.Width * share,
                cut.Height.Points * 4,
                new TypeRange(face, size, size, 1.12),
                shaper
            );
            var (width, height) = (Widest(set), High(set, face, shaper));
            // A word that had to be split is too large for this width.
            var split = set.Lines.Any(l =>
                !l.EndsParagraph
                && l.Start + l.Text.Length < words.Length
                && !char.IsWhiteSpace(words[l.Start + l.Text.Length])
                && words[l.Start + l.Text.Length - 1] is not ('-' or '–' or '—' or '/')
            );
            if (!split && set.Fits && width <= room.Width && height <= room.Height && seen.Add(set.Lines.Length))
            {
                yield return (width, height);
            }
        }
    }

    private static (QuietSpot Spot, double Cost)? Place(
        string words,
        Typeface face,
        double size,
        (double Width, double Height) shape,
        Size cut,
        ToneMap tones,
        Sums sums,
        IReadOnlyList<(double X, double Y, double Width, double Height)> keep
    )
    {
        var (cellWidth, cellHeight) = (cut.Width.Points / tones.Columns, cut.Height.Points / tones.Rows);
        (QuietSpot Spot, double Cost)? best = null;
        for (var y = EdgePt; y + shape.Height <= cut.Height.Points - EdgePt + 1e-6; y += cellHeight)
        {
            for (var x = EdgePt; x + shape.Width <= cut.Width.Points - EdgePt + 1e-6; x += cellWidth)
            {
                if (
                    keep.Any(k =>
                        x < (k.X + k.Width) * cut.Width.Points
                        && x + shape.Width > k.X * cut.Width.Points
                        && y < (k.Y + k.Height) * cut.Height.Points
                        && y + shape.Height > k.Y * cut.Height.Points
                    )
                )
                {
                    continue;
                }

                var (left, top, right, bottom) = Cells(x, y, shape.Width, shape.Height, cut, tones);
                var detail = sums.Detail(left, top, right, bottom);
                var histogram = sums.Histogram(left, top, right, bottom);
                var (white, dark) = (WorstContrast(histogram, White), WorstContrast(histogram, Dark));
                var contrast = Math.Max(white, dark);
                var cost = detail + (0.2 * Math.Max(0, ReadableContrast - contrast));
                if (best is null || cost < best.Value.Cost - 1e-9)
                {
                    var caption = new PhotoCaption(
                        words,
                        face,
                        size,
                        x / cut.Width.Points,
                        y / cut.Height.Points,
                        Math.Min(1, shape.Width / cut.Width.Points),
                        white >= dark ? White : Dark,
                        null
                    );
                    best = (new QuietSpot(caption, contrast, detail), cost);
                }
            }
        }

        return best;
    }

    private static (int Left, int Top, int Right, int Bottom) Cells(
        double x,
        double y,
        double width,
        double height,
        Size cut,
        ToneMap tones
    )
    {
        var (perColumn, perRow) = (cut.Width.Points / tones.Columns, cut.Height.Points / tones.Rows);
        var (left, top) = (
            Math.Clamp((int)(x / perColumn), 0, tones.Columns - 1),
            Math.Clamp((int)(y / perRow), 0, tones.Rows - 1)
        );
        return (
            left,
            top,
            Math.Clamp((int)Math.Ceiling((x + width) / perColumn), left + 1, tones.Columns),
            Math.Clamp((int)Math.Ceiling((y + height) / perRow), top + 1, tones.Rows)
        );
    }

    /// <summary>
    /// Contrast that all but a twentieth of the cells reach; each bin counts with the tone nearest to the ink.
    /// </summary>
    private static double WorstContrast(ReadOnlySpan<int> histogram, Rgb ink)
    {
        var all = 0;
        foreach (var count in histogram)
        {
            all += count;
        }

        var (left, light) = (all / 20, Rgb.Contrast(ink, White) < Rgb.Contrast(ink, Dark));
        for (var i = 0; i < Bins; i++)
        {
            // From the tones nearest to the ink.
            var bin = light ? Bins - 1 - i : i;
            left -= histogram[bin];
            if (left < 0)
            {
                var (tone, own) = ((bin + (light ? 1 : 0)) / (double)Bins, ink.Luminance);
                tone *= tone;
                // What is as light as light ink, or as dark as dark ink, gives no contrast to build on.
                return light ? (tone >= own ? 1 : (own + 0.05) / (tone + 0.05))
                    : tone <= own ? 1
                    : (tone + 0.05) / (own + 0.05);
            }
        }

        return 1;
    }

    /// <summary>
    /// Sums over any rectangle of cells in constant time. Tones are binned by the root of luminance, finer in the dark.
    /// </summary>
    private sealed class Sums
    {
        private readonly int _stride;
        private readonly double[] _detail;
        private readonly int[][] _bins;

        public Sums(ToneMap tones)
        {
            _stride = tones.Columns + 1;
            _detail = new double[_stride * (tones.Rows + 1)];
            _bins = [.. Enumerable.Range(0, Bins).Select(_ => new int[_detail.Length])];
            for (var y = 0; y < tones.Rows; y++)
            {
                for (var x = 0; x < tones.Columns; x++)
                {
                    var cell = (y * tones.Columns) + x;
                    var at = ((y + 1) * _stride) + x + 1;
                    _detail[at] =
                        tones.Detail[cell] + _detail[at - 1] + _detail[at - _stride] - _detail[at - _stride - 1];
                    var own = Math.Clamp((int)(Math.Sqrt(tones.Luminance[cell]) * Bins), 0, Bins - 1);
                    for (var b = 0; b < Bins; b++)
                    {
                        _bins[b][at] =
                            (b == own ? 1 : 0) + _bins[b][at - 1] + _bins[b][at - _stride] - _bins[b][at - _stride - 1];
                    }
                }
            }
        }

        public double Detail(int left, int top, int right, int bottom) =>
            (
                _detail[(bottom * _stride) + right]
                - _detail[(top * _stride) + right]
                - _detail[(bottom * _stride) + left]
                + _detail[(top * _stride) + left]
            ) / ((right - left) * (bottom - top));

        public int[] Histogram(int left, int top, int right, int bottom)
        {
            var found = new int[Bins];
            for (var b = 0; b < Bins; b++)
            {
                var sums = _bins[b];
                found[b] =
                    sums[(bottom * _stride) + right]
                    - sums[(top * _stride) + right]
                    - sums[(bottom * _stride) + left]
                    + sums[(top * _stride) + left];
            }

            return found;
        }
    }
}
