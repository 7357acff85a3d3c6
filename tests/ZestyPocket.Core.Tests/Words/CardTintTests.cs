using System.Collections.Immutable;
using CsCheck;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Colours that cards take from pictures.</summary>
public sealed class CardTintTests
{
    private static readonly Gen<PaletteColour> Colour = Gen.Select(
        Gen.Byte,
        Gen.Byte,
        Gen.Byte,
        Gen.Double[0.02, 1],
        (r, g, b, share) => new PaletteColour(r, g, b, share)
    );

    private static readonly Gen<ImmutableArray<PaletteColour>> Picture = Colour
        .Array[1, PictureJudging.PaletteSize]
        .Select(colours =>
            colours
                .Select(c => c with { Share = c.Share / colours.Sum(o => o.Share) })
                .OrderByDescending(c => c.Share)
                .ToImmutableArray()
        );

    [Fact]
    public void Words_stay_readable_in_any_colours_of_pictures()
    {
        Picture.Sample(
            palette =>
            {
                if (CardTint.From(palette) is not { } tint)
                {
                    palette.ShouldAllBe(c => c.Lab.Chroma < 7);
                    return;
                }

                foreach (var style in BuiltInCardStyles.All)
                {
                    var tinted = tint.On(style);
                    // Contrast by the formula of WCAG 2.2; difference by CIEDE2000.
                    if (style.Role != StyleRole.Filler)
                    {
                        Rgb.Contrast(tinted.Ink, tinted.Paper).ShouldBeGreaterThanOrEqualTo(4.5, style.Key);
                    }

                    Lab(tinted.Accent).DifferenceTo(Lab(tinted.Paper)).ShouldBeGreaterThanOrEqualTo(13, style.Key);
                }
            },
            iter: 1_000
        );
    }

    [Fact]
    public void Every_shipped_style_is_readable_in_its_own_colours()
    {
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role != StyleRole.Filler))
        {
            Rgb.Contrast(style.Ink, style.Paper).ShouldBeGreaterThanOrEqualTo(4.5, style.Key);
        }
    }

    [Fact]
    public void A_tint_has_the_hues_of_the_pictures_and_dark_cards_stay_dark()
    {
        // A meadow under a blue sky with one red coat.
        ImmutableArray<PaletteColour> palette = [new(96, 132, 70, 0.5), new(120, 160, 205, 0.4), new(196, 48, 40, 0.1)];
        var tint = CardTint.From(palette)!;
        tint.Accent.ShouldBe(new Rgb(196, 48, 40));
        tint.Main.ShouldBe(new Rgb(96, 132, 70));
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role == StyleRole.Title))
        {
            var tinted = tint.On(style);
            Math.Abs(Lab(tinted.Paper).L - Lab(style.Paper).L).ShouldBeLessThan(4, style.Key);
        }

        var journal = tint.On(BuiltInCardStyles.All.Single(s => s.Key == "almanac-journal"));
        var paper = Lab(journal.Paper);
        (paper.A < 0 && paper.B > 0).ShouldBeTrue("the paper is greenish");
        Lab(journal.Accent).A.ShouldBeGreaterThan(20);
    }

    [Fact]
    public void Grey_pictures_give_no_tint() =>
        CardTint.From([new(20, 20, 20, 0.5), new(128, 128, 128, 0.3), new(250, 250, 250, 0.2)]).ShouldBeNull();

    [Fact]
    public void Pictures_together_have_one_palette_in_any_order()
    {
        Gen.Select(Picture.Array[1, 12], Gen.Int)
            .Sample(
                (pictures, seed) =>
                {
                    var together = Palettes.Together(pictures);
                    var shuffled = pictures.OrderBy(p => HashCode.Combine(p[0], seed)).ToArray();
                    Palettes.Together(shuffled).ShouldBe(together);
                    together.Length.ShouldBeInRange(1, PictureJudging.PaletteSize);
                    together.Sum(c => c.Share).ShouldBe(1, 0.001);
                    for (var i = 0; i < together.Length; i++)
                    {
                        together.Skip(i + 1).ShouldAllBe(o => o.Lab.DifferenceTo(together[i].Lab) >= Palettes.Apart);
                    }
                },
                iter: 500
            );
    }

    private static LabColour Lab(Rgb colour) => LabColour.OfSrgb(colour.R, colour.G, colour.B);
}
