using System.Buffers.Binary;
using System.IO.Compression;
using NodaTime;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Importing;

/// <summary>A file inside a zip.</summary>
public sealed record ZipFileEntry(int Index, string Name, LocalDateTime? Modified);

/// <summary>
/// Zips of pictures, bounded before they are opened: how many files, how large a directory, how many bytes come out.
/// Names inside are only names; nothing is ever written where they point.
/// </summary>
public static class ZipBundle
{
    public const long LargestZip = 4L << 30;

    public const int MostFiles = 5_000;

    /// <summary>All files of one zip together.</summary>
    public const long MostUnpacked = 8L << 30;

    private const long LargestDirectory = 16 << 20;

    /// <summary>Whether a parked file is a zip; false when it is not there.</summary>
    public static bool Is(string path)
    {
        if (!File.Exists(path))
        {
            return false;
        }

        Span<byte> head = stackalloc byte[4];
        using var file = File.OpenRead(path);
        return file.ReadAtLeast(head, 4, throwOnEndOfStream: false) == 4 && PictureFormats.IsZip(head);
    }

    /// <summary>The files in a zip without folders and the droppings of file managers.</summary>
    public static IReadOnlyList<ZipFileEntry> List(string path)
    {
        Bound(path);
        try
        {
            using var zip = ZipFile.OpenRead(path);
            return
            [
                .. zip
                    .Entries.Select((e, i) => (Entry: e, Index: i))
                    .Where(e =>
                        e.Entry.Name.Length > 0
                        && !e.Entry.Name.StartsWith('.')
                        && !e.Entry.FullName.StartsWith("__MACOSX/", StringComparison.Ordinal)
                        && e.Entry.Name != "Thumbs.db"
                    )
                    .Select(e => new ZipFileEntry(
                        e.Index,
                        e.Entry.FullName,
                        LocalDateTime.FromDateTime(e.Entry.LastWriteTime.DateTime)
                    )),
            ];
        }
        catch (InvalidDataException broken)
        {
            throw Broken(broken);
        }
    }

    /// <summary>Unpacks one file, reading no more than a picture may have.</summary>
    public static async Task<IArrivedFile> UnpackAsync(
        IPhotoVault vault,
        string path,
        int entry,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(vault);
        try
        {
            using var zip = ZipFile.OpenRead(path);
            await using var content = zip.Entries[entry].Open();
            return await vault.ReceiveAsync(content, PictureIntake.LargestFile, cancel);
        }
        catch (Exception broken) when (broken is InvalidDataException or NotSupportedException)
        {
            throw new PictureRefusedException(
                "This file cannot be taken out of the zip: it is damaged, or locked with a password.",
                broken
            );
        }
    }

    /// <summary>
    /// Looks at the end record of the zip, without believing it: a directory that is too large is not read at all.
    /// </summary>
    private static void Bound(string path)
    {
        using var file = File.OpenRead(path);
        var tail = new byte[Math.Min(file.Length, 22 + 65_535)];
        file.Seek(-tail.Length, SeekOrigin.End);
        file.ReadExactly(tail);
        var at = tail.AsSpan().LastIndexOf("PK\x05\x06"u8);
        if (at < 0 || at + 22 > tail.Length)
        {
            throw Broken(null);
        }

        var files = BinaryPrimitives.ReadUInt16LittleEndian(tail.AsSpan(at + 10));
        var directory = BinaryPrimitives.ReadUInt32LittleEndian(tail.AsSpan(at + 16));
        if (files > MostFiles || file.Length - tail.Length + at - directory > LargestDirectory)
        {
            throw new PictureRefusedException(
                $"The zip holds more than {MostFiles:N0} files. Split it and add the parts."
            );
        }
    }

    private static PictureRefusedException Broken(Exception? inner) =>
        new("The zip is damaged and cannot be opened. Pack it again.", inner);
}
