using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Borders, mats, strips and shapes of a print.</summary>
public sealed class FinishTests
{
    private static readonly Rgb White = new(255, 255, 255);

    private static readonly Gen<Finish> Finishes = Gen.Select(
        Gen.Enum<CutShape>(),
        Gen.Int[0, 6],
        Gen.Int[1, 5].Array[0, 2],
        Gen.Int[0, 8],
        Gen.Enum<PieceEdge>(),
        (shape, border, mats, strip, edge) =>
            new Finish
            {
                Shape = shape,
                Corner = shape == CutShape.Rectangle ? Length.FromMillimetres(border) : Length.Zero,
                Border = border > 0 ? PrintBorder.Even(Length.FromMillimetres(border), White) : null,
                Mats = [.. mats.Select(m => new Mat(Length.FromMillimetres(m), new Rgb(10, 20, 30), null))],
                Strip =
                    strip > 0 && shape == CutShape.Rectangle
                        ? new EdgeStrip(edge, Length.FromMillimetres(strip), "zest-dots")
                        : null,
            }
    );

    [Fact]
    public void A_white_border_of_a_quarter_inch_leaves_5_and_a_half_by_3_and_a_half_of_a_6x4()
    {
        // Arithmetic of the trade: (w − 2b) x (h − 2b).
        var finish = new Finish { Border = PrintBorder.Even(Length.FromInches(1, 4), White) };
        var parts = finish.On(Size.FromInches(6, 4));
        parts.Picture.Bounds.Size.ShouldBe(Size.FromInches(5.5m, 3.5m));
        parts.Print.Bounds.Size.ShouldBe(Size.FromInches(6, 4));
    }

    [Fact]
    public void A_trimmed_print_on_a_mat_has_an_even_border_again()
    {
        var finish = new Finish { Mats = [new Mat(Length.FromInches(1, 8), White, null)] };
        var parts = finish.On(Size.FromInches(3, 4));
        parts.Mats.Single().Bounds.Size.ShouldBe(Size.FromInches(3, 4));
        parts.Print.Bounds.ShouldBe(
            new Rect(Length.FromInches(1, 8), Length.FromInches(1, 8), Size.FromInches(2.75m, 3.75m))
        );
    }

    [Fact]
    public void Book_ends_take_a_strip_from_the_outer_edge_only()
    {
        var finish = new Finish
        {
            Strip = new EdgeStrip(PieceEdge.Left, Length.FromInches(1, 2), "zest-dots"),
            Border = PrintBorder.Even(Length.FromInches(1, 8), White),
        };
        var parts = finish.On(Size.FromInches(6, 4));
        parts.Strip.ShouldBe(new Rect(Length.Zero, Length.Zero, Size.FromInches(0.5m, 4)));
        parts.Picture.Bounds.ShouldBe(
            new Rect(Length.FromInches(5, 8), Length.FromInches(1, 8), Size.FromInches(5.25m, 3.75m))
        );
    }

    [Fact]
    public void Parts_lie_inside_each_other_and_leave_room_for_the_picture()
    {
        Gen.Select(Finishes, Gen.Int[50, 200], Gen.Int[50, 200])
            .Sample(
                (finish, w, h) =>
                {
                    var cut = new Size(Length.FromMillimetres(w), Length.FromMillimetres(h));
                    if (finish.OnOrNull(cut) is not { } parts)
                    {
                        Should.Throw<RuleException>(() => finish.On(cut)).Message.ShouldContain("Nothing was changed");
                        return;
                    }

                    Outline[] all = [.. parts.Mats, parts.Print, parts.Picture];
                    for (var i = 1; i < all.Length; i++)
                    {
                        all[i - 1].Bounds.Contains(all[i].Bounds).ShouldBeTrue();
                        all[i].AreaSquareInches.ShouldBeLessThanOrEqualTo(all[i - 1].AreaSquareInches + 1e-9);
                    }

                    parts.Picture.Bounds.Width.ShouldBeGreaterThanOrEqualTo(Finish.LeastPicture);
                    // What the strip, the border and the picture take adds up to the print.
                    if (finish is { Strip: { } strip, Border: null })
                    {
                        var along = strip.Edge is PieceEdge.Left or PieceEdge.Right;
                        var print = parts.Print.Bounds;
                        (
                            along ? parts.Picture.Bounds.Width + strip.Width : parts.Picture.Bounds.Height + strip.Width
                        ).ShouldBe(along ? print.Width : print.Height);
                    }
                },
                iter: 2_000
            );
    }

    [Fact]
    public void A_finish_is_written_and_read_back()
    {
        Finishes.Sample(
            finish =>
            {
                var read = WrittenFinish.Of(finish, MeasureSystem.Millimetres)!.ToFinish();
                read.Mats.ShouldBe(finish.Mats);
                (read with { Mats = [] }).ShouldBe(finish with { Mats = [] });
            },
            iter: 500
        );
    }

    [Fact]
    public void What_makes_no_sense_is_refused_with_the_reason()
    {
        Refused(new Finish { Border = PrintBorder.Even(Length.FromInches(2), White) }).ShouldContain("border");
        Refused(new Finish { Mats = [.. Enumerable.Repeat(new Mat(Length.FromMillimetres(3), White, null), 3)] })
            .ShouldContain("two mats");
        Refused(
                new Finish
                {
                    Shape = CutShape.Circle,
                    Strip = new EdgeStrip(PieceEdge.Left, Length.FromMillimetres(5), "zest-dots"),
                }
            )
            .ShouldContain("rectangle");
        Refused(new Finish { Strip = new EdgeStrip(PieceEdge.Left, Length.FromMillimetres(5), "nowhere") })
            .ShouldContain("nowhere");
        Refused(new Finish { Corner = Length.FromInches(3) }).ShouldContain("Corners");

        static string Refused(Finish finish) =>
            Should.Throw<RuleException>(() => finish.Checked(key => key == "zest-dots")).Message;
    }
}
