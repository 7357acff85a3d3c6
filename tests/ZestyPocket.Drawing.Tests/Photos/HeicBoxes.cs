using System.Buffers.Binary;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>
/// Adds a rotation box to a HEIC file that has none: property <c>irot</c> in <c>ipco</c>, its association in
/// <c>ipma</c>, and what lies behind moved on in <c>iloc</c> (ISO/IEC 23008-12 and 14496-12, from memory).
/// </summary>
internal static class HeicBoxes
{
    public static byte[] WithRotation(byte[] file, byte quarterTurns)
    {
        var ipco = Find(file, "ipco");
        var ipma = Find(file, "ipma");
        var properties = 0;
        for (var at = ipco + 8; at < ipco + Size(file, ipco); at += Size(file, at))
        {
            properties++;
        }

        // One item: version and flags, entry count, item id, number of associations.
        var associations = ipma + 8 + 4 + 4 + 2;
        (file[ipma + 8], file[ipma + 11] & 1).ShouldBe(((byte)0, 0), "small item numbers and property numbers");
        byte[] irot = [0, 0, 0, 9, .. "irot"u8, quarterTurns];
        var (endOfIpco, endOfFirst) = (ipco + Size(file, ipco), associations + 1 + file[associations]);
        endOfFirst.ShouldBeGreaterThanOrEqualTo(endOfIpco);
        byte[] grown =
        [
            .. file[..endOfIpco],
            .. irot,
            .. file[endOfIpco..endOfFirst],
            (byte)(0x80 | (properties + 1)),
            .. file[endOfFirst..],
        ];
        grown[associations + irot.Length]++;
        Grow(grown, ipco, irot.Length);
        Grow(grown, ipma + irot.Length, 1);
        Grow(grown, Find(grown, "iprp"), irot.Length + 1);
        Grow(grown, Find(grown, "meta"), irot.Length + 1);
        MoveItems(grown, Find(grown, "iloc"), irot.Length + 1);
        return grown;
    }

    private static void MoveItems(byte[] file, int iloc, int by)
    {
        var version = file[iloc + 8];
        var (offset, length, @base) = (file[iloc + 12] >> 4, file[iloc + 12] & 15, file[iloc + 13] >> 4);
        var index = version == 0 ? 0 : file[iloc + 13] & 15;
        var count = BinaryPrimitives.ReadUInt16BigEndian(file.AsSpan(iloc + 14));
        var at = iloc + 16;
        for (var item = 0; item < count; item++)
        {
            at += 2 + (version == 0 ? 0 : 2) + 2 + @base;
            var extents = BinaryPrimitives.ReadUInt16BigEndian(file.AsSpan(at));
            at += 2;
            for (var extent = 0; extent < extents; extent++)
            {
                offset.ShouldBe(4);
                var span = file.AsSpan(at + index);
                BinaryPrimitives.WriteInt32BigEndian(span, BinaryPrimitives.ReadInt32BigEndian(span) + by);
                at += index + offset + length;
            }
        }
    }

    private static int Find(byte[] file, string type) =>
        file.AsSpan().IndexOf(System.Text.Encoding.ASCII.GetBytes(type)) - 4;

    private static int Size(byte[] file, int box) => BinaryPrimitives.ReadInt32BigEndian(file.AsSpan(box));

    private static void Grow(byte[] file, int box, int by) =>
        BinaryPrimitives.WriteInt32BigEndian(file.AsSpan(box), Size(file, box) + by);
}
