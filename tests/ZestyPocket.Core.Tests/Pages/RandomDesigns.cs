using CsCheck;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>Page designs by chance: a page parted again and again by seams that go right across.</summary>
internal static class RandomDesigns
{
    private static readonly Length Quarter = Length.FromInches(1, 4);

    public static Gen<PageDesign> Any { get; } =
        from width in Gen.Int[4, 48]
        from height in Gen.Int[4, 48]
        from seams in Gen.Select(Gen.Int[0, 1_000], Gen.Int[1, 1_000], Gen.Bool).List[0, 14]
        select Parted(width, height, seams);

    private static PageDesign Parted(int width, int height, List<(int Pocket, int At, bool Upright)> seams)
    {
        var pockets = new List<(int X, int Y, int W, int H)> { (0, 0, width, height) };
        foreach (var (which, at, upright) in seams)
        {
            var i = which % pockets.Count;
            var (x, y, w, h) = pockets[i];
            var whole = upright ? w : h;
            if (whole < 2)
            {
                continue;
            }

            var cut = 1 + (at % (whole - 1));
            pockets[i] = upright ? (x, y, cut, h) : (x, y, w, cut);
            pockets.Add(upright ? (x + cut, y, w - cut, h) : (x, y + cut, w, h - cut));
        }

        var notation = DesignTiling.Write([
            .. pockets.Select(p => new Rect(Quarter * p.X, Quarter * p.Y, Quarter * p.W, Quarter * p.H)),
        ]);
        return PageDesign.FromNotation("any", "Any", notation);
    }
}
