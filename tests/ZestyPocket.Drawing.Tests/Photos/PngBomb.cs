using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>Small PNG files that unpack to a great deal. Source: PNG specification (ISO/IEC 15948).</summary>
internal static class PngBomb
{
    /// <summary>A compressed text chunk of so many zeros.</summary>
    public static byte[] Chunk(string kind, int unpacked, int number)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true))
        {
            var zeros = new byte[1 << 20];
            for (var left = unpacked; left > 0; left -= zeros.Length)
            {
                zlib.Write(zeros, 0, Math.Min(left, zeros.Length));
            }
        }

        byte[] head =
            kind != "iTXt"
                ? [.. Encoding.ASCII.GetBytes($"Note{number}"), 0, 0]
                : [.. Encoding.ASCII.GetBytes($"Note{number}"), 0, 1, 0, 0, 0];
        return Chunk(kind, [.. head, .. packed.ToArray()]);
    }

    /// <summary>The first bytes of an interlaced picture; its pixels break off.</summary>
    public static byte[] Interlaced(int width, int height)
    {
        var header = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(header, width);
        BinaryPrimitives.WriteInt32BigEndian(header.AsSpan(4), height);
        (header[8], header[9], header[12]) = (8, 2, 1);
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true))
        {
            zlib.Write(new byte[100_000]);
        }

        return
        [
            0x89,
            .. "PNG\r\n\u001a\n"u8,
            .. Chunk("IHDR", header),
            .. Chunk("IDAT", packed.ToArray()),
            .. Chunk("IEND", []),
        ];
    }

    private static byte[] Chunk(string kind, byte[] data)
    {
        byte[] body = [.. Encoding.ASCII.GetBytes(kind), .. data];
        var (length, check) = (new byte[4], new byte[4]);
        BinaryPrimitives.WriteInt32BigEndian(length, data.Length);
        BinaryPrimitives.WriteUInt32BigEndian(check, Crc(body));
        return [.. length, .. body, .. check];
    }

    /// <summary>The check sum of a chunk. Source: PNG specification, annex D.</summary>
    private static uint Crc(byte[] bytes)
    {
        var crc = uint.MaxValue;
        foreach (var b in bytes)
        {
            crc ^= b;
            for (var bit = 0; bit < 8; bit++)
            {
                crc = (crc & 1) == 0 ? crc >> 1 : (crc >> 1) ^ 0xEDB88320;
            }
        }

        return ~crc;
    }
}
