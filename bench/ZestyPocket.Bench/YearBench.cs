using System.Diagnostics;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Demo;
using ZestyPocket.Solving;

namespace ZestyPocket.Bench;

/// <summary>
/// A year to sheets: 53 weeks, 900 pictures of twelve megapixels (of 30 files) in pockets of 3x4, 6x4 and 6x8, and 160
/// cards, with nothing cached, against vipsthumbnail cutting as many pictures of the same pixels. Memory is the most
/// that the process holds while it writes.
/// </summary>
internal static class YearBench
{
    private const int Pictures = 900;
    private const int Cards = 160;
    private const int Files = 30;

    public static void Run()
    {
        var folder = Directory.CreateTempSubdirectory("zesty-bench-").FullName;
        try
        {
            var paths = Enumerable.Range(0, Files).ToDictionary(FileCrops.KeyOf, i => Picture(folder, i));
            using var fonts = new FontShelf();
            var painter = new SheetPainter(new PiecePainter(fonts, new FileCrops(paths)), fonts);
            var (due, faces) = Pieces(fonts);
            using var covering = new SheetCovering();
            var setup = new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero);

            var (before, watch) = (Cpu.Now().Own, Stopwatch.StartNew());
            var plan = PrintPlan.For(due, setup, covering);
            var planned = Cpu.Now().Own - before;
            Raster.Png(612, 792, 96, canvas => Draw(canvas, 0, 96));
            var first = watch.Elapsed.TotalSeconds;
            using (var file = new FileStream(Path.Combine(folder, "out.pdf"), FileMode.Create, FileAccess.ReadWrite))
            {
                PdfFile.Write(
                    file,
                    "Year",
                    plan.Sheets.Select((_, i) => new PdfPage(612, 792, canvas => Draw(canvas, i, 300)))
                );
            }

            var ours = Cpu.Now().Own - before;
            var most = Process.GetCurrentProcess().PeakWorkingSet64 / 1e6;
            var apart = PrintPlan.For(due, setup).SheetsOfPaper;
            var theirs = 0.0;
            foreach (var size in new[] { "900x1200", "1800x1200", "1800x2400" })
            {
                for (var round = 0; round < Pictures / 3 / Files; round++)
                {
                    theirs += Cpu.OfProgram(
                        "vipsthumbnail",
                        ["--vips-concurrency=1", "-s", size, "-o", $"{folder}/t-%s.jpg[Q=92]", .. paths.Values]
                    );
                }
            }

            Console.WriteLine(
                $"year     {Pictures} pictures and {Cards} cards on {plan.SheetsOfPaper} sheets (by rules {apart}), "
                    + $"proved: {plan.IsProved}; chosen in {planned:0.00} s CPU, first sheet seen after {first:0.0} s; "
                    + $"all {ours:0.0} s CPU, vipsthumbnail alone {theirs:0.0} s, ratio {ours / theirs:0.00}; "
                    + $"most memory {most:0} MB"
            );

            void Draw(SkiaSharp.SKCanvas canvas, int sheet, double pixelsPerInch) =>
                painter.Draw(
                    canvas,
                    plan.Sheets[sheet],
                    setup,
                    new SheetHeading("Year", sheet + 1, plan.Sheets.Length),
                    d => faces[d.PieceId],
                    pixelsPerInch
                );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>A file of twelve megapixels.</summary>
    internal static string Picture(string folder, int i)
    {
        var path = Path.Combine(folder, $"{i}.jpg");
        var shot = new DemoShot(
            "x",
            (Scene)(i % 20),
            i,
            4000,
            3000,
            new NodaTime.LocalDateTime(2026, 5, 5, 12, 0),
            "Bench B1",
            null,
            0,
            0
        );
        File.WriteAllBytes(path, DemoPictures.Jpeg(shot));
        return path;
    }

    private static (List<DuePiece> Due, Dictionary<Guid, PieceFace> Faces) Pieces(FontShelf fonts)
    {
        var (pixels, faces, due) = (new PixelSize(4000, 3000), new Dictionary<Guid, PieceFace>(), new List<DuePiece>());
        Size[] cuts = [Size.FromInches(3, 4), Size.FromInches(6, 4), Size.FromInches(6, 8)];
        for (var i = 0; i < Pictures; i++)
        {
            var (id, cut) = (new Guid(i + 1, 0, 0, new byte[8]), cuts[i % 3]);
            faces[id] = new PhotoFace(
                cut,
                new PictureRef(FileCrops.KeyOf(i % Files)),
                pixels,
                Crop.For(pixels, cut, Framing.Middle)
            );
            due.Add(new DuePiece(id, $"W{1 + (i * 53 / Pictures)} L{i % 17}", cut, Stock.PhotoPaper));
        }

        var style = AlbumWords.Usual.NewStyle(CardKind.Journaling);
        for (var i = 0; i < Cards; i++)
        {
            var (id, cut) = (new Guid(i + 1, 1, 0, new byte[8]), cuts[0]);
            faces[id] = new CardPieceFace(
                cut,
                CardComposer.Title(string.Empty, "A walk to the mill and back", "in the rain", style, cut, fonts)
            );
            due.Add(new DuePiece(id, $"W{1 + (i * 53 / Cards)} R{i % 17}", cut, Stock.WhiteCard));
        }

        return (due, faces);
    }
}
