using System.Collections.Immutable;
using System.Diagnostics;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Pages;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// An album as a book: 104 pages of nine 3x4, 900 pictures of twelve megapixels (of 30 files) and 36 cards, with
/// nothing cached, against vipsthumbnail cutting as many pictures of the same pixels. Memory is the most that the
/// process holds.
/// </summary>
internal static class BookBench
{
    private const int Pages = 104;
    private const int Pictures = 900;
    private const int Files = 30;

    public static void Run()
    {
        var folder = Directory.CreateTempSubdirectory("zesty-bench-").FullName;
        try
        {
            var paths = Enumerable.Range(0, Files).ToDictionary(FileCrops.KeyOf, i => YearBench.Picture(folder, i));
            using var fonts = new FontShelf();
            var painter = new SpreadPainter(new PiecePainter(fonts, new FileCrops(paths)));
            var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!);
            var before = Cpu.Now().Own;
            using (var file = new FileStream(Path.Combine(folder, "out.pdf"), FileMode.Create, FileAccess.ReadWrite))
            {
                PdfFile.Write(file, "Book", Enumerable.Range(0, Pages).Select(Page));
            }

            var ours = Cpu.Now().Own - before;
            var most = Process.GetCurrentProcess().PeakWorkingSet64 / 1e6;
            var theirs = Enumerable
                .Range(0, Pictures / Files)
                .Sum(_ =>
                    Cpu.OfProgram(
                        "vipsthumbnail",
                        ["--vips-concurrency=1", "-s", "900x1200", "-o", $"{folder}/t-%s.jpg[Q=92]", .. paths.Values]
                    )
                );
            Console.WriteLine(
                $"book     {Pictures} pictures on {Pages} pages: {ours:0.0} s CPU, vipsthumbnail alone {theirs:0.0} s, "
                    + $"ratio {ours / theirs:0.00}; most memory {most:0} MB"
            );

            PdfPage Page(int number)
            {
                var side = number % 2 == 0 ? LeafSide.Back : LeafSide.Front;
                var face = new PaintedFace(protector, side, Faces(number, side), LeafAlterations.Plain);
                var size = SpreadPainter.SizeOf([face]);
                return new PdfPage(
                    size.Width.Points,
                    size.Height.Points,
                    canvas => painter.Draw(canvas, [face], 300, CancellationToken.None)
                )
                {
                    Reading = new PdfReading(null, $"Page {number}", ["A walk to the mill and back"]),
                };
            }

            ImmutableDictionary<string, PieceFace> Faces(int number, LeafSide side)
            {
                var pixels = new PixelSize(4000, 3000);
                var style = AlbumWords.Usual.NewStyle(CardKind.Journaling);
                return protector
                    .Design.Face(side)
                    .Select((pocket, i) => (pocket, Nth: (number * 9) + i))
                    .ToImmutableDictionary(
                        p => p.pocket.Key,
                        p =>
                        {
                            var cut = protector.CutSize(p.pocket);
                            return p.Nth < Pictures
                                ? (PieceFace)
                                    new PhotoFace(
                                        cut,
                                        new PictureRef(FileCrops.KeyOf(p.Nth % Files)),
                                        pixels,
                                        Crop.For(pixels, cut, Framing.Middle)
                                    )
                                : new CardPieceFace(
                                    cut,
                                    CardComposer.Title("", "A walk to the mill", "in the rain", style, cut, fonts)
                                );
                        }
                    );
            }
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
