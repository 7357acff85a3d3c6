using Microsoft.AspNetCore.Mvc;
using NodaTime;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;

namespace ZestyPocket.Server.Keeping;

/// <summary>Asks for a bundle.</summary>
/// <param name="RequestKey">Chosen by the asker: the same key is the same backup.</param>
/// <param name="AlbumIds">Which albums; none are all of them.</param>
public sealed record BackupRequest(string RequestKey, IReadOnlyList<Guid>? AlbumIds);

/// <summary>Asks for a bundle to be read back.</summary>
public sealed record RestoreRequest(string RequestKey);

/// <summary>A bundle, or how far it is.</summary>
/// <param name="Report">What could not be taken along.</param>
public sealed record BackupView(
    Guid Id,
    string FileName,
    JobState State,
    int FilesDone,
    int FilesTotal,
    long Bytes,
    Instant MadeAt,
    string? Problem,
    IReadOnlyList<string> Report
)
{
    public static BackupView Of(Backup backup)
    {
        ArgumentNullException.ThrowIfNull(backup);
        return new BackupView(
            backup.Id,
            backup.FileName,
            backup.State,
            backup.FilesDone,
            backup.FilesTotal,
            backup.Bytes,
            backup.MadeAt,
            backup.Problem,
            backup.Report
        );
    }
}

/// <summary>A bundle that is read back, or was.</summary>
/// <param name="AlbumIds">The albums it has given.</param>
/// <param name="Report">What did not come back; empty when everything is as it was.</param>
public sealed record RestoreView(
    Guid Id,
    JobState State,
    int FilesDone,
    string? Problem,
    IReadOnlyList<Guid> AlbumIds,
    IReadOnlyList<string> Report
)
{
    public static RestoreView Of(Restore restore)
    {
        ArgumentNullException.ThrowIfNull(restore);
        return new RestoreView(
            restore.Id,
            restore.State,
            restore.FilesDone,
            restore.Problem,
            restore.AlbumIds,
            restore.Report
        );
    }
}

/// <summary>How often everything is backed up by itself.</summary>
/// <param name="EveryDays">Null for never.</param>
/// <param name="Kept">So many of those bundles are kept.</param>
/// <param name="Folder">Where bundles are written to.</param>
public sealed record BackupScheduleView(int? EveryDays, int Kept, string Folder);

/// <summary>Sets how often everything is backed up by itself.</summary>
public sealed record SetBackupSchedule(int? EveryDays, int Kept);

/// <summary>Backups and restores.</summary>
public static class BackupEndpoints
{
    public static void MapBackups(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("").WithTags("Keeping");
        group
            .MapGet(
                "/backups",
                async (Backups backups, CancellationToken cancel) =>
                    (await backups.ListAsync(cancel)).ConvertAll(BackupView.Of)
            )
            .WithName("getBackups")
            .WithProblems();
        group
            .MapGet(
                "/backup-schedule",
                async (Backups backups, CancellationToken cancel) => await backups.ScheduleAsync(cancel)
            )
            .WithName("getBackupSchedule")
            .WithProblems();
        group
            .MapGet(
                "/kept-files",
                async (MadeFileSweeper files, CancellationToken cancel) => await files.ViewAsync(cancel)
            )
            .WithName("getKeptFiles")
            .WithProblems();
        group
            .MapPut(
                "/backup-schedule",
                async (SetBackupSchedule wish, Backups backups, CancellationToken cancel) =>
                    await backups.ScheduleAsync(new BackupRhythm(wish.EveryDays, wish.Kept), cancel)
            )
            .WithName("setBackupSchedule")
            .WithProblems();
        group
            .MapPost(
                "/backups",
                async (BackupRequest request, Backups backups, CancellationToken cancel) =>
                    BackupView.Of(await backups.StartAsync(request.RequestKey, request.AlbumIds, cancel))
            )
            .WithName("startBackup")
            .WithProblems();
        group
            .MapGet(
                "/backups/{id:guid}",
                async (Guid id, AskedJobs<Backup> jobs, CancellationToken cancel) =>
                    BackupView.Of(await jobs.RequireAsync(id, Backups.What, cancel))
            )
            .WithName("getBackup")
            .WithProblems();
        group
            .MapPost(
                "/backups/{id:guid}/cancel",
                async (Guid id, AskedJobs<Backup> jobs, CancellationToken cancel) =>
                    BackupView.Of(await jobs.CancelAsync(id, Backups.What, cancel))
            )
            .WithName("cancelBackup")
            .WithProblems();
        group
            .MapGet(
                "/backups/{id:guid}/file",
                async (Guid id, Backups backups, CancellationToken cancel) =>
                {
                    var path = await backups.PathAsync(id, cancel);
                    // A download that breaks off is taken up where it stopped.
                    return Results.File(path, "application/zip", Path.GetFileName(path), enableRangeProcessing: true);
                }
            )
            .WithName("getBackupFile")
            .Produces(StatusCodes.Status200OK, contentType: "application/zip")
            .WithProblems();
        group
            .MapDelete(
                "/backups/{id:guid}",
                async (Guid id, Backups backups, CancellationToken cancel) =>
                {
                    await backups.DeleteAsync(id, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("deleteBackup")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/backups/{id:guid}/restore",
                async (Guid id, RestoreRequest request, Backups backups, CancellationToken cancel) =>
                    RestoreView.Of(await backups.RestoreAsync(id, request.RequestKey, cancel))
            )
            .WithName("restoreBackup")
            .WithProblems();
        group
            .MapPost(
                "/restores",
                async ([FromQuery] string requestKey, HttpRequest request, Backups backups, CancellationToken cancel) =>
                    RestoreView.Of(await backups.RestoreAsync(request.Body, requestKey, cancel))
            )
            .WithName("restoreFile")
            .RequireRateLimiting(RateLimits.Uploads)
            .Accepts<byte[]>("application/octet-stream")
            .WithMetadata(new RequestSizeLimitAttribute(Backups.LargestBundle))
            .WithProblems();
        group
            .MapGet(
                "/restores/{id:guid}",
                async (Guid id, AskedJobs<Restore> jobs, CancellationToken cancel) =>
                    RestoreView.Of(await jobs.RequireAsync(id, Backups.WhatRestore, cancel))
            )
            .WithName("getRestore")
            .WithProblems();
        group
            .MapPost(
                "/restores/{id:guid}/cancel",
                async (Guid id, AskedJobs<Restore> jobs, CancellationToken cancel) =>
                    RestoreView.Of(await jobs.CancelAsync(id, Backups.WhatRestore, cancel))
            )
            .WithName("cancelRestore")
            .WithProblems();
    }
}
