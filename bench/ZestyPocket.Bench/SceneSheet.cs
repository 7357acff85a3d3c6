using SkiaSharp;
using ZestyPocket.Server.Demo;

namespace ZestyPocket.Bench;

/// <summary>Every scene that the demo's snapshots show, on one contact sheet, to be looked at.</summary>
internal static class SceneSheet
{
    private const int Columns = 8;
    private const int Wide = 240;
    private const int Tall = 180;

    public static void Write(string file)
    {
        var scenes = Enum.GetValues<Scene>();
        using var sheet = new SKBitmap(Columns * Wide, ((scenes.Length + Columns - 1) / Columns) * Tall);
        using var canvas = new SKCanvas(sheet);
        for (var i = 0; i < scenes.Length; i++)
        {
            using var picture = new DemoScenes(i + 5, scenes[i], 14).Paint(Wide - 6, Tall - 6);
            canvas.DrawBitmap(picture, (i % Columns * Wide) + 3, (i / Columns * Tall) + 3, SKSamplingOptions.Default);
        }

        using var stream = File.Create(file);
        sheet.Encode(stream, SKEncodedImageFormat.Png, 90);
    }
}
