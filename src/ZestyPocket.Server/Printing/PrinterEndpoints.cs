using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>A printer and what it does to a sheet.</summary>
/// <param name="Verdict">In words; null before it was measured.</param>
/// <param name="IsTrue">Nothing needs to be made up for.</param>
/// <param name="MakesUp">Sheets for it make up for what was measured.</param>
public sealed record PrinterView(
    Guid Id,
    string Name,
    string? Verdict,
    bool IsTrue,
    bool MakesUp,
    double ScaleXPercent,
    double ScaleYPercent,
    double OffsetXMm,
    double OffsetYMm,
    double BackRightMm,
    double BackDownMm
)
{
    public static PrinterView Of(Printer printer)
    {
        ArgumentNullException.ThrowIfNull(printer);
        var fault = printer.Fault();
        return new PrinterView(
            printer.Id,
            printer.Name,
            printer.MeasuredAt is null ? null : fault.Verdict(),
            fault.IsTrue,
            printer.MakesUp,
            Math.Round(100 * fault.ScaleX, 1),
            Math.Round(100 * fault.ScaleY, 1),
            Math.Round((double)fault.OffsetX.Millimetres, 2),
            Math.Round((double)fault.OffsetY.Millimetres, 2),
            Math.Round((double)printer.BackRight.Millimetres, 2),
            Math.Round((double)printer.BackDown.Millimetres, 2)
        );
    }
}

/// <summary>A new printer, or another name for one.</summary>
public sealed record NamePrinter(string Name);

/// <summary>
/// Measures of a test sheet, such as <c>145.5 mm</c>; without the distances from the edges the printer is taken to
/// print in the right place.
/// </summary>
public sealed record PrinterMeasures(string Across, string Down, string? FromLeft = null, string? FromTop = null);

/// <summary>
/// How far to the right of where it belongs, and how far down, the second side comes out, such as <c>0.8 mm</c>; seen
/// on that side, less than nothing for left and up.
/// </summary>
public sealed record BackOffset(string Right, string Down);

/// <summary>Whether the sheets of a printer make up for what was measured.</summary>
public sealed record MakeUp(bool MakesUp);

/// <summary>Printers, their test sheets, and the printer that stands in for one.</summary>
public static class PrinterEndpoints
{
    private const int MostPrinters = 24;

    private const long MostScanBytes = 60L << 20;

    public static void MapPrinters(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/printers").WithTags("Printing");
        group
            .MapGet("", (Printers printers, CancellationToken cancel) => printers.ListAsync(cancel))
            .WithName("listPrinters")
            .WithProblems();
        group
            .MapPost(
                "",
                async (NamePrinter made, Printers printers, CancellationToken cancel) =>
                    PrinterView.Of(await printers.AddAsync(made.Name, MostPrinters, cancel))
            )
            .WithName("addPrinter")
            .WithProblems();
        group
            .MapDelete(
                "/{id:guid}",
                async (Guid id, Printers printers, CancellationToken cancel) =>
                {
                    await printers.ChangeAsync(id, printers.Remove, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("deletePrinter")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/{id:guid}/measures",
                async (Guid id, PrinterMeasures measures, Printers printers, CancellationToken cancel) =>
                    await printers.MeasureAsync(
                        id,
                        PrinterFault.Of(
                            MeasureText.ParseLength(measures.Across),
                            MeasureText.ParseLength(measures.Down),
                            Length(measures.FromLeft),
                            Length(measures.FromTop)
                        ),
                        cancel
                    )
            )
            .WithName("measurePrinter")
            .WithProblems();
        group
            .MapPost(
                "/{id:guid}/make-up",
                async (Guid id, MakeUp wish, Printers printers, CancellationToken cancel) =>
                    PrinterView.Of(await printers.ChangeAsync(id, p => p.MakesUp = wish.MakesUp, cancel))
            )
            .WithName("makeUpForPrinter")
            .WithProblems();
        group
            .MapPost(
                "/{id:guid}/back",
                async (Guid id, BackOffset offset, Printers printers, CancellationToken cancel) =>
                {
                    var (right, down) = (Signed(offset.Right), Signed(offset.Down));
                    return PrinterView.Of(
                        await printers.ChangeAsync(id, p => (p.BackRight, p.BackDown) = (right, down), cancel)
                    );
                }
            )
            .WithName("setBackOffset")
            .WithProblems();
        group
            .MapGet(
                "/{id:guid}/test-sheet.pdf",
                async (
                    Guid id,
                    [FromQuery] string paper,
                    Printers printers,
                    FontShelf fonts,
                    CancellationToken cancel
                ) =>
                {
                    var (printer, sheet) = (await printers.RequireAsync(id, cancel), PaperOf(paper));
                    var painter = new TestSheetPainter(fonts);
                    var page = new PdfPage(
                        sheet.Size.Width.Points,
                        sheet.Size.Height.Points,
                        canvas => painter.Draw(canvas, sheet, printer.Name)
                    );
                    return Results.File(
                        PdfFile.Bytes($"{printer.Name}: test sheet", [page]),
                        "application/pdf",
                        "test-sheet.pdf"
                    );
                }
            )
            .WithName("getTestSheet")
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf")
            .WithProblems();
        group
            .MapPost(
                "/{id:guid}/scan",
                async (
                    Guid id,
                    [FromQuery] string paper,
                    HttpRequest request,
                    Printers printers,
                    ReaderPool readers,
                    PaintingBench bench,
                    CancellationToken cancel
                ) =>
                {
                    if (request.ContentLength is null or > MostScanBytes)
                    {
                        throw new RuleException(
                            "A scan is at most 60 MB. Nothing was kept: scan it at 150 to 300 dpi."
                        );
                    }

                    var fault = await ScanAsync(request.Body, PaperOf(paper).Size, readers, bench, cancel);
                    return await printers.MeasureAsync(id, fault, cancel);
                }
            )
            .Accepts<byte[]>("application/octet-stream")
            .WithName("readScan")
            .WithProblems();
        group
            .MapPost(
                "/{id:guid}/stand-in",
                async (
                    Guid id,
                    [FromQuery] string paper,
                    Printers printers,
                    FontShelf fonts,
                    CancellationToken cancel
                ) =>
                {
                    var (printer, sheet) = (await printers.RequireAsync(id, cancel), PaperOf(paper));
                    var painter = new TestSheetPainter(fonts);
                    var scan = StandInPrinter.Scan(
                        sheet.Size,
                        StandInPrinter.UsualFault,
                        canvas => painter.Draw(canvas, sheet, printer.Name)
                    );
                    return await printers.MeasureAsync(id, ScanReader.Read(scan, sheet.Size), cancel);
                }
            )
            .WithName("printOnStandIn")
            .WithProblems();
    }

    private static async Task<PrinterFault> ScanAsync(
        Stream scan,
        Size paper,
        ReaderPool readers,
        PaintingBench bench,
        CancellationToken cancel
    )
    {
        var arrived = Path.GetTempFileName();
        try
        {
            await using (var file = File.OpenWrite(arrived))
            {
                await scan.CopyToAsync(file, cancel);
            }

            return await bench.RunAsync(() => readers.Do(new ReadScan(arrived, paper), cancel: cancel), cancel);
        }
        catch (PictureRefusedException refused)
        {
            throw new RuleException(refused.Message);
        }
        finally
        {
            File.Delete(arrived);
        }
    }

    private static Length? Length(string? text) =>
        string.IsNullOrWhiteSpace(text) ? null : MeasureText.ParseLength(text);

    /// <summary>A length that may be less than nothing; a back more than 10 mm off was measured wrong.</summary>
    private static Length Signed(string text)
    {
        var clean = (text ?? string.Empty).Trim().Replace('\u2212', '-');
        var size = MeasureText.ParseLengthOrNone(clean.TrimStart('-'));
        return size > Core.Measures.Length.FromMillimetres(10)
                ? throw new RuleException(
                    "The second side lies at most 10 mm aside. Nothing was kept: measure against the light again."
                )
            : clean.StartsWith('-') ? -size
            : size;
    }

    private static Paper PaperOf(string key) =>
        Paper.Find(key) is { } paper && TestSheetPainter.Takes(paper)
            ? paper
            : throw new RuleException(
                "The test sheet needs paper of at least 195 × 235 mm, such as Letter or A4. Choose another paper."
            );
}

/// <summary>The printers of a keeper.</summary>
public sealed class Printers(ZestyContext db, ICurrentKeeper keeper, IClock clock)
{
    public async Task<IReadOnlyList<PrinterView>> ListAsync(CancellationToken cancel) =>
        [
            .. (
                await db
                    .Printers.AsNoTracking()
                    .Where(p => p.KeeperId == keeper.Id)
                    .OrderBy(p => p.MadeAt)
                    .ToListAsync(cancel)
            ).Select(PrinterView.Of),
        ];

    public async Task<Printer> RequireAsync(Guid id, CancellationToken cancel) =>
        await db.Printers.SingleOrDefaultAsync(p => p.Id == id && p.KeeperId == keeper.Id, cancel)
        ?? throw new MissingException("That printer");

    public async Task<Printer> AddAsync(string name, int most, CancellationToken cancel)
    {
        var written = (name ?? string.Empty).Trim();
        if (written.Length is 0 or > 80)
        {
            throw new RuleException("A printer needs a name of at most 80 characters. Nothing was added.");
        }

        if (await db.Printers.CountAsync(p => p.KeeperId == keeper.Id, cancel) >= most)
        {
            throw new RuleException($"There can be {most} printers at most. Nothing was added: delete one first.");
        }

        var printer = new Printer
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeper.Id,
            Name = written,
            MadeAt = clock.GetCurrentInstant(),
        };
        db.Printers.Add(printer);
        await db.SaveChangesAsync(cancel);
        return printer;
    }

    public async Task<Printer> ChangeAsync(Guid id, Action<Printer> change, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(change);
        var printer = await RequireAsync(id, cancel);
        change(printer);
        await db.SaveChangesAsync(cancel);
        return printer;
    }

    public void Remove(Printer printer) => db.Printers.Remove(printer);

    /// <summary>Keeps what was measured. A printer that prints true makes up for nothing.</summary>
    public async Task<PrinterView> MeasureAsync(Guid id, PrinterFault fault, CancellationToken cancel) =>
        PrinterView.Of(
            await ChangeAsync(
                id,
                printer =>
                {
                    printer.Measured(fault, clock.GetCurrentInstant());
                    printer.MakesUp &= !fault.IsTrue;
                },
                cancel
            )
        );
}
