using System.IO.Compression;
using ICSharpCode.SharpZipLib.Zip;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>A file of a bundle.</summary>
/// <param name="Open">Its content; reading throws <see cref="InvalidDataException"/> where it is damaged.</param>
public sealed record BundleFile(string Name, Func<Stream> Open);

/// <summary>
/// Reads a bundle file by file. One whose table of contents is gone, since it was cut off, is read from its start as
/// far as it goes.
/// </summary>
public static class BundleReader
{
    /// <param name="broken">Called with a sentence when the bundle ends before its end.</param>
    public static IEnumerable<BundleFile> Files(string path, Action<string> broken)
    {
        ArgumentNullException.ThrowIfNull(broken);
        return Contents(path) is { } zip ? InOrder(zip) : FromItsStart(path, broken);
    }

    private static ZipArchive? Contents(string path)
    {
        try
        {
            var zip = System.IO.Compression.ZipFile.OpenRead(path);
            // The table of contents is read when it is first asked for.
            _ = zip.Entries.Count;
            return zip;
        }
        catch (InvalidDataException)
        {
            return null;
        }
    }

    private static IEnumerable<BundleFile> InOrder(ZipArchive zip)
    {
        using (zip)
        {
            foreach (var entry in zip.Entries)
            {
                yield return new BundleFile(entry.FullName, entry.Open);
            }
        }
    }

    private static IEnumerable<BundleFile> FromItsStart(string path, Action<string> broken)
    {
        using var file = File.OpenRead(path);
        using var zip = new ZipInputStream(file);
        while (true)
        {
            ZipEntry? entry;
            try
            {
                entry = zip.GetNextEntry();
            }
            catch (Exception end) when (end is ZipException or EndOfStreamException or InvalidDataException)
            {
                entry = null;
            }

            if (entry is null)
            {
                broken(
                    "The bundle has no table of contents: it was cut off. It was read from its start as far as it goes."
                );
                yield break;
            }

            yield return new BundleFile(entry.Name, () => new Reading(zip));
        }
    }

    /// <summary>The file in hand of a zip that is read from its start: closing it leaves the zip open.</summary>
    private sealed class Reading(ZipInputStream zip) : Stream
    {
        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            try
            {
                return zip.Read(buffer, offset, count);
            }
            catch (Exception broken)
                when (broken is ZipException or ICSharpCode.SharpZipLib.SharpZipBaseException or EndOfStreamException)
            {
                throw new InvalidDataException(broken.Message, broken);
            }
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
