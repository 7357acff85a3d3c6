using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Draws the files of a lab order into one ZIP: JPEGs, <c>order.csv</c> and <c>order.json</c>.</summary>
public sealed class LabOrderRunner(
    ZestyContext db,
    IDbContextFactory<ZestyContext> contexts,
    PrintRun run,
    ISheetCovering covering,
    PiecePainter painter,
    LabNudges queue,
    IConfiguration configuration,
    ZestySettings settings,
    IClock clock,
    IMadeFiles files,
    ILogger<LabOrderRunner> log
) : AskedJobRunner<LabOrder>(db, queue, configuration, clock, log)
{
    public static string PathOf(ZestySettings settings, Guid orderId)
    {
        ArgumentNullException.ThrowIfNull(settings);
        return Path.Combine(settings.Prints, $"{orderId:N}.zip");
    }

    protected override string Failure => "the files for the lab could not be drawn";

    protected override string TurnOf(LabOrder job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return $"print {job.AlbumId}";
    }

    protected override async Task WorkAsync(LabOrder job, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(job);
        var prepared = await run.PrepareAsync(
            job.UnitIds,
            PrintRun.Setup(Paper.Letter.Key, "0", "0"),
            new WantedPieces(job.Choice, job.PieceIds),
            cancel
        );
        var pieces = PrintPlan.WhollyOn(prepared.Due, Stock.PhotoPaper);
        if (pieces.Count == 0)
        {
            throw new RuleException(
                "There are no pictures on photo paper to order here: they are printed as they are, or on other paper."
            );
        }

        var prints = LabPrints.Of(pieces, p => prepared.UnitNames[prepared.UnitOf[p.PieceId]], covering, cancel);
        (job.State, job.PagesDone, job.PagesTotal, job.Problem) = (JobState.Running, 0, prints.Length, null);
        await Db.SaveChangesAsync(cancel);

        List<LabOrderPrint> done = [];
        await WholeFile.WriteAsync(
            PathOf(settings, job.Id),
            async path => done = await WriteAsync(path, job, prepared, prints, cancel)
        );
        await files.ShareAsync(PathOf(settings, job.Id), cancel);
        (job.Prints, job.PagesDone) = (JsonSerializer.Serialize(done, JsonSerializerOptions.Web), prints.Length);
    }

    private async Task<List<LabOrderPrint>> WriteAsync(
        string path,
        LabOrder job,
        PreparedRun prepared,
        IReadOnlyList<LabPrint> prints,
        CancellationToken cancel
    )
    {
        var lab = new LabPainter(painter);
        var done = new List<LabOrderPrint>();
        using var watch = new JobWatch<LabOrder>(contexts, job.Id, cancel);
        await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite);
        using var zip = new ZipArchive(file, ZipArchiveMode.Create);
        foreach (var print in prints)
        {
            watch.Tell(set => set.SetProperty(o => o.PagesDone, done.Count));
            var jpeg = lab.Jpeg(print, due => prepared.Faces[(due.PieceId, due.Part)], cancel);
            await WriteEntryAsync(zip, print.FileName, jpeg, cancel);
            done.Add(
                new LabOrderPrint(
                    print.FileName,
                    SizeName(print.Paper),
                    Convert.ToHexStringLower(SHA256.HashData(jpeg)),
                    [
                        .. print.Pieces.Select(p => new LabOrderPiece(
                            p.Due.PieceId,
                            prepared.UnitOf[p.Due.PieceId],
                            p.Due.Number,
                            p.Due.Cut.Width.Emu,
                            p.Due.Cut.Height.Emu,
                            prepared.Recipes.GetValueOrDefault(p.Due.PieceId)
                        )),
                    ]
                )
            );
        }

        await WriteEntryAsync(zip, "order.csv", Csv(done), cancel);
        await WriteEntryAsync(zip, "order.json", Json(job, done), cancel);
        return done;
    }

    private static async Task WriteEntryAsync(ZipArchive zip, string name, byte[] bytes, CancellationToken cancel)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.NoCompression);
        // The same order gives the same file.
        entry.LastWriteTime = new DateTimeOffset(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);
        await using var stream = await entry.OpenAsync(cancel);
        await stream.WriteAsync(bytes, cancel);
    }

    private static string SizeName(Size paper) =>
        string.Create(CultureInfo.InvariantCulture, $"{paper.Width.Inches:0.##}x{paper.Height.Inches:0.##}");

    private static byte[] Csv(List<LabOrderPrint> prints) =>
        CsvTable.Write(
            ["file", "size_in", "copies", "pieces", "sha256"],
            prints.Select(p =>
                new[] { p.FileName, p.Size, "1", string.Join("; ", p.Pieces.Select(x => x.Number)), p.Sha256 }
            )
        );

    private static byte[] Json(LabOrder job, List<LabOrderPrint> prints) =>
        JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                format = "zesty-pocket-lab-order",
                version = 1,
                order = job.Id,
                enlargement = LabPrints.Enlargement,
                prints = prints.Select(p => new
                {
                    file = p.FileName,
                    sizeInches = p.Size,
                    copies = 1,
                    pieces = p.Pieces.Select(x => x.Number),
                    sha256 = p.Sha256,
                }),
            },
            JsonSerializerOptions.Web
        );
}
