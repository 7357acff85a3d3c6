using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Tests.Pages;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>
/// One picture over neighbouring pockets of pages by chance. Common practice; geometry is arithmetic.
/// </summary>
public sealed class SpanTests
{
    [Fact]
    public void Slices_lie_in_the_picture_as_their_prints_lie_on_the_page()
    {
        Gen.Select(RandomDesigns.Any, Gen.Bool, Gen.Int[0, 20])
            .Sample(
                (design, back, under) =>
                {
                    // Every pocket is a little under its name, so that there is something to skip.
                    var ease = Length.FromInches(under, 100);
                    var protector = Protector.Unmeasured(design) with { Ease = Length.Zero };
                    protector = protector with
                    {
                        ClearSizes = protector.ClearSizes.AddRange(
                            design
                                .Pockets.Select(p => p.Nominal)
                                .Distinct()
                                .Select(n => KeyValuePair.Create(n, new Size(n.Width - ease, n.Height - ease)))
                        ),
                    };
                    var side = back ? LeafSide.Back : LeafSide.Front;
                    var keys = design.Pockets.Select(p => p.Key).ToList();
                    var (whole, slices) = Spans.Of(protector, side, keys);
                    var face = design.Face(side).ToDictionary(p => p.Key, p => p.Bounds);
                    var frame = new Rect(Length.Zero, Length.Zero, whole);
                    foreach (var (key, slice) in slices)
                    {
                        frame.Contains(slice).ShouldBeTrue();
                        slice.Size.ShouldBe(protector.CutSize(face[key].Size));
                        slices.Values.Count(other => other.Overlaps(slice)).ShouldBe(1);
                        // As far from the first print as its pocket is, whatever lies under the welds.
                        var first = slices.Values.MinBy(s => (s.Y, s.X));
                        var firstKey = slices.First(s => s.Value == first).Key;
                        Near(
                            slice.X + (slice.Width / 2) - first.X - (first.Width / 2),
                            face[key].X + (face[key].Width / 2) - face[firstKey].X - (face[firstKey].Width / 2)
                        );
                        Near(
                            slice.Y + (slice.Height / 2) - first.Y - (first.Height / 2),
                            face[key].Y + (face[key].Height / 2) - face[firstKey].Y - (face[firstKey].Height / 2)
                        );
                    }
                },
                iter: 60
            );

        static void Near(Length a, Length b) => Math.Abs((a - b).Emu).ShouldBeLessThanOrEqualTo(4);
    }

    [Fact]
    public void No_slice_is_squeezed_whatever_the_framing()
    {
        Gen.Select(
                RandomDesigns.Any,
                Gen.Select(Gen.Int[400, 6000], Gen.Int[400, 6000]),
                Gen.Select(Gen.Double[0, 1], Gen.Double[0, 1], Gen.Double[1, 4])
            )
            .Sample(
                (design, pixels, framing) =>
                {
                    var protector = Protector.Unmeasured(design);
                    var (whole, slices) = Spans.Of(protector, LeafSide.Front, [.. design.Pockets.Select(p => p.Key)]);
                    var picture = new PixelSize(pixels.Item1, pixels.Item2);
                    var crop = Crop.For(picture, whole, new Framing(framing.Item1, framing.Item2, framing.Item3));
                    foreach (var slice in slices.Values)
                    {
                        var part = Spans.SliceOf(crop, whole, slice);
                        var (across, down) = (
                            part.Width / (double)slice.Width.Inches,
                            part.Height / (double)slice.Height.Inches
                        );
                        across.ShouldBe(down, across * 1e-6);
                        across.ShouldBe(crop.Width / (double)whole.Width.Inches, across * 1e-9);
                        part.Left.ShouldBeGreaterThanOrEqualTo(-1e-6);
                        (part.Left + part.Width).ShouldBeLessThanOrEqualTo(picture.Width + 1e-6);
                        (part.Top + part.Height).ShouldBeLessThanOrEqualTo(picture.Height + 1e-6);
                    }
                },
                iter: 60
            );
    }
}
