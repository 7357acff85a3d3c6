using System.Buffers.Binary;
using System.IO.Compression;

namespace ZestyPocket.Drawing.Photos;

/// <summary>
/// What a PNG carries beside its pixels: texts, a colour profile, camera data. A picture library unfolds each of them
/// when it opens the file, and a packed text of some kB can unfold to gigabytes; so they are counted first, all
/// together, without keeping any. Source: PNG (third edition), 11.3.
/// </summary>
internal static class PngNotes
{
    /// <summary>All of them together, unfolded, in bytes; ordinary files have some hundred kB.</summary>
    public const long MostUnfolded = 16L << 20;

    /// <summary>How many there may be; each takes memory of its own, even an empty one.</summary>
    public const int Most = 2_000;

    private const int SignatureLength = 8;

    /// <summary>The length, the kind and the check sum around the content of a chunk.</summary>
    private const int AroundChunk = 12;

    /// <summary>
    /// Looks through a file. Throws <see cref="PictureRefusedException"/> when it carries more than a picture does.
    /// What is damaged is left to whoever decodes it.
    /// </summary>
    public static void Bound(string path)
    {
        using var file = File.OpenRead(path);
        var (at, length) = ((long)SignatureLength, file.Length);
        var (count, unfolded) = (0, 0L);
        Span<byte> head = stackalloc byte[8];
        while (at + AroundChunk <= length)
        {
            file.Position = at;
            file.ReadExactly(head);
            var content = BinaryPrimitives.ReadUInt32BigEndian(head);
            var kind = BinaryPrimitives.ReadUInt32BigEndian(head[4..]);
            if (kind == Kind("IEND"u8) || content > length - at - AroundChunk)
            {
                return;
            }

            if (kind != Kind("IDAT"u8) && kind != Kind("fdAT"u8))
            {
                unfolded += Unfolded(file, kind, content, MostUnfolded - unfolded);
                if (++count > Most || unfolded > MostUnfolded)
                {
                    throw new PictureRefusedException(
                        "The picture carries far more notes than pixels: its texts or its colour profile unfold to "
                            + $"more than {MostUnfolded >> 20} MB, or there are over {Most:N0} of them. Save it again "
                            + "without them."
                    );
                }
            }

            at += content + AroundChunk;
        }
    }

    private static uint Kind(ReadOnlySpan<byte> name) => BinaryPrimitives.ReadUInt32BigEndian(name);

    /// <summary>How many bytes become of a chunk; counts no further than just beyond <paramref name="most"/>.</summary>
    private static long Unfolded(FileStream file, uint kind, long content, long most)
    {
        var end = file.Position + content;
        if (kind == Kind("zTXt"u8) || kind == Kind("iCCP"u8))
        {
            // A name, its end, and the way it is packed.
            SkipText(file, end);
            return Unpacked(file, end, skip: 1, most);
        }

        if (kind == Kind("iTXt"u8))
        {
            SkipText(file, end);
            var packed = file.Position < end && file.ReadByte() == 1;
            if (packed)
            {
                file.Position++;
                SkipText(file, end);
                SkipText(file, end);
                return Unpacked(file, end, skip: 0, most);
            }
        }

        return content;
    }

    private static void SkipText(FileStream file, long end)
    {
        while (file.Position < end && file.ReadByte() > 0) { }
    }

    private static long Unpacked(FileStream file, long end, int skip, long most)
    {
        file.Position = Math.Min(end, file.Position + skip);
        var packed = new byte[Math.Min(end - file.Position, MostUnfolded + 1)];
        file.ReadExactly(packed);
        using var unfolding = new ZLibStream(new MemoryStream(packed), CompressionMode.Decompress);
        var buffer = new byte[1 << 16];
        var total = 0L;
        try
        {
            for (int read; total <= most && (read = unfolding.Read(buffer)) > 0; )
            {
                total += read;
            }
        }
        catch (InvalidDataException)
        {
            // Damaged: nobody unfolds more of it either.
        }

        return Math.Max(total, packed.Length);
    }
}
