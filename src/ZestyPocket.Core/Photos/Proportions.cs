using System.Globalization;

namespace ZestyPocket.Core.Photos;

/// <summary>Names of common picture proportions.</summary>
public static class Proportions
{
    private static readonly (int Long, int Short)[] Common = [(1, 1), (5, 4), (4, 3), (3, 2), (16, 9), (2, 1)];

    /// <summary>
    /// Such as <c>3:2</c>, upright <c>2:3</c>; within 1.5 % of a common one, else as a decimal number to one.
    /// </summary>
    public static string Name(PixelSize pixels)
    {
        var (large, small) = (Math.Max(pixels.Width, pixels.Height), Math.Min(pixels.Width, pixels.Height));
        foreach (var (a, b) in Common)
        {
            if (Math.Abs(((double)large / small * b / a) - 1) <= 0.015)
            {
                return pixels.Width >= pixels.Height ? $"{a}:{b}" : $"{b}:{a}";
            }
        }

        return string.Create(CultureInfo.InvariantCulture, $"{pixels.Proportion:0.00}:1");
    }
}
