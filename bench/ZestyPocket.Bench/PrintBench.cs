using System.Diagnostics;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Demo;

namespace ZestyPocket.Bench;

/// <summary>
/// Printing nine 3x4 pockets from twelve-megapixel pictures, crops not cached, against vipsthumbnail making nine
/// pictures of the same pixels from the same files without any PDF around them.
/// </summary>
internal static class PrintBench
{
    public static void Run()
    {
        var folder = Directory.CreateTempSubdirectory("zesty-bench-").FullName;
        try
        {
            var paths = new Dictionary<ContentHash, string>();
            for (var i = 0; i < 9; i++)
            {
                var path = Path.Combine(folder, $"{i}.jpg");
                File.WriteAllBytes(
                    path,
                    DemoPictures.Jpeg(
                        new DemoShot(
                            "x",
                            (Scene)i,
                            i,
                            3000,
                            4000,
                            new NodaTime.LocalDateTime(2026, 5, 5, 12, 0),
                            "Bench B1",
                            null,
                            0,
                            0
                        )
                    )
                );
                paths[FileCrops.KeyOf(i)] = path;
            }

            using var fonts = new FontShelf();
            var painter = new SheetPainter(new PiecePainter(fonts, new FileCrops(paths)), fonts);
            var (cut, pixels) = (Size.FromInches(3, 4), new PixelSize(3000, 4000));
            var faces = new Dictionary<Guid, PieceFace>();
            var due = new List<DuePiece>();
            foreach (var key in paths.Keys)
            {
                var id = Guid.CreateVersion7();
                faces[id] = new PhotoFace(cut, new PictureRef(key), pixels, Crop.For(pixels, cut, Framing.Middle));
                due.Add(new DuePiece(id, $"W19 L{due.Count + 1}", cut, Stock.PhotoPaper));
            }

            var (ours, theirs, wall) = (new List<double>(), new List<double>(), new List<double>());
            for (var round = 0; round < 6; round++)
            {
                var vips = Cpu.OfProgram(
                    "vipsthumbnail",
                    [
                        "--vips-concurrency=1",
                        "-s",
                        "900x1200",
                        "-o",
                        Path.Combine(folder, "t-%s.jpg[Q=92]"),
                        .. paths.Values,
                    ]
                );
                var (before, watch) = (Cpu.Now().Own, Stopwatch.StartNew());
                var plan = PrintPlan.For(due, new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero));
                using (
                    var file = new FileStream(Path.Combine(folder, "out.pdf"), FileMode.Create, FileAccess.ReadWrite)
                )
                {
                    PdfFile.Write(
                        file,
                        "Bench",
                        plan.Sheets.Select(
                            (sheet, i) =>
                                new PdfPage(
                                    612,
                                    792,
                                    canvas =>
                                        painter.Draw(
                                            canvas,
                                            sheet,
                                            plan.Setup,
                                            new SheetHeading("Bench", i + 1, plan.Sheets.Length),
                                            d => faces[d.PieceId],
                                            300
                                        )
                                )
                        )
                    );
                }

                if (round > 0)
                {
                    ours.Add(Cpu.Now().Own - before);
                    wall.Add(watch.Elapsed.TotalSeconds);
                    theirs.Add(vips);
                }
            }

            Console.WriteLine(
                $"print    nine 3x4 at 300 ppi: ours {Cpu.Median(ours):0.00} s CPU ({Cpu.Median(wall):0.00} s "
                    + $"wall), vipsthumbnail alone {Cpu.Median(theirs):0.00} s CPU, ratio "
                    + $"{Cpu.Median(ours) / Cpu.Median(theirs):0.00}"
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
