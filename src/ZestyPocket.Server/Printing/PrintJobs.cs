using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>Starts prints.</summary>
public sealed class PrintJobs(ZestyContext db, AlbumReader albums, AskedJobs<PrintJob> jobs)
{
    /// <summary>For a refusal that names it.</summary>
    public const string What = "The print job";

    /// <summary>A year of weeks has fewer.</summary>
    private const int MostPieces = 5_000;

    public Task<PrintJob> StartAsync(PrintRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        return jobs.StartAsync(request.RequestKey, () => MakeAsync(request, cancel), cancel);
    }

    private async Task<PrintJob> MakeAsync(PrintRequest request, CancellationToken cancel)
    {
        var setup = PrintRun.Setup(request.PaperKey, request.Margin, request.Gap);
        var options = request.Asked.Options;
        options.Check();
        if (request.UnitIds.Count is 0 or > PrintRun.MostUnits)
        {
            throw new RuleException($"Choose 1 to {PrintRun.MostUnits} weeks or days to print at once.");
        }

        var unitIds = request.UnitIds.Distinct().ToList();
        var albumIds = await db
            .Units.Where(u => unitIds.Contains(u.Id))
            .Select(u => u.AlbumId)
            .Distinct()
            .ToListAsync(cancel);
        if (albumIds.Count != 1)
        {
            throw new RuleException("What is printed together must be of one album.");
        }

        return new PrintJob
        {
            AlbumId = (await albums.RequireAsync(albumIds[0], cancel)).Id,
            RequestKey = request.RequestKey,
            UnitIds = unitIds,
            PaperKey = setup.Paper.Key,
            MarginEmu = setup.Margin.Emu,
            GapEmu = setup.Gap.Emu,
            DespiteDoubts = request.DespiteDoubts,
            PrinterId = request.PrinterId,
            Choice = request.Choice,
            Options = options,
            PieceIds = [.. (request.PieceIds ?? []).Distinct().Take(MostPieces)],
        };
    }
}
