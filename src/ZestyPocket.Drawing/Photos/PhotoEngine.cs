using NetVips;

namespace ZestyPocket.Drawing.Photos;

/// <summary>
/// Sets the picture library up once: only the loaders this program needs, one thread a picture (files run side by
/// side instead), no cache that would grow.
/// </summary>
public static class PhotoEngine
{
    private static readonly Lazy<bool> Started = new(() =>
    {
        // A hostile file can make it warn thousands of times; what matters comes back as an error.
        Log.SetLogHandler("VIPS", Enums.LogLevelFlags.Warning, (_, _, _) => { });
        NetVips.NetVips.BlockUntrusted = true;
        Operation.Block("VipsForeignLoad", true);
        Operation.Block("VipsForeignLoadJpeg", false);
        Operation.Block("VipsForeignLoadPng", false);
        Operation.Block("VipsForeignLoadWebp", false);
        Operation.Block("VipsForeignLoadHeif", false);
        Operation.Block("VipsForeignLoadTiff", false);
        Operation.Block("VipsForeignLoadNsgif", false);
        NetVips.NetVips.Concurrency = 1;
        Cache.Max = 0;
        return true;
    });

    /// <summary>Safe to call from anywhere, any number of times.</summary>
    public static void Start() => _ = Started.Value;
}
