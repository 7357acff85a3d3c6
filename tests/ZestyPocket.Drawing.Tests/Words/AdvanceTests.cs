using System.Text.Json;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Words;

/// <summary>The widths words are fitted by, against HarfBuzz's own command hb-shape on the shipped files.</summary>
public sealed class AdvanceTests : IDisposable
{
    private readonly FontShelf _fonts = new();

    public static TheoryData<Typeface, string> Faces =>
        new()
        {
            { Typeface.Sans, "Figtree_400Regular.ttf" },
            { Typeface.SansStrong, "Figtree_600SemiBold.ttf" },
            { Typeface.Serif, "SourceSerif4_400Regular.ttf" },
            { Typeface.Typewriter, "CourierPrime_400Regular.ttf" },
            { Typeface.Handwriting, "Caveat_500Medium.ttf" },
            { Typeface.Display, "BricolageGrotesque_700Bold.ttf" },
        };

    public void Dispose() => _fonts.Dispose();

    [Theory]
    [MemberData(nameof(Faces))]
    public async Task Advances_are_those_of_hb_shape(Typeface face, string file)
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "ZestyPocket.slnx")))
        {
            folder = Path.GetDirectoryName(folder.TrimEnd(Path.DirectorySeparatorChar))!;
        }

        var path = Path.Combine(folder, "src/ZestyPocket.Drawing/Fonts", file);
        using var skia = SkiaSharp.SKTypeface.FromFile(path);
        string[] texts =
        [
            "AVATAR Wave To, Ty. “fi” fluffy office",
            "The kettle would not boil; nobody minded.",
            "1,240 km in 9 days (and 3 people)",
            "Łódź, Málaga, Åre: naïve café",
            "kite-string—half past ten…",
            "To",
            "f",
        ];
        foreach (var text in texts)
        {
            var (code, output) = await OtherReaders.Run(
                "hb-shape",
                "--features=-calt",
                "--output-format=json",
                "--no-glyph-names",
                path,
                text
            );
            code.ShouldBe(0, output);
            using var glyphs = JsonDocument.Parse(output);
            var theirs =
                glyphs.RootElement.EnumerateArray().Sum(g => g.GetProperty("ax").GetDouble()) / skia.UnitsPerEm;
            glyphs
                .RootElement.EnumerateArray()
                .ShouldAllBe(g => g.GetProperty("g").GetInt32() != 0, $"{file} has all letters of “{text}”");
            _fonts.Shape(face, text).Ends[^1].ShouldBe(theirs, 1e-9, $"{face}: {text}");
        }
    }
}
