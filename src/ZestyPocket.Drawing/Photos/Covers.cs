using NetVips;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Drawing.Photos;

/// <summary>
/// Opaque boxes over number plates, addresses, other people's children: painted into the pixels, so that what they
/// cover is not there any more.
/// </summary>
internal static class Covers
{
    private static readonly double[] Colour = [92, 84, 76];

    /// <summary>Paints boxes given in fractions of an portrait photo, rounded outwards to whole pixels.</summary>
    public static Image Over(Image picture, IReadOnlyList<PictureBox> boxes) =>
        OverPart(picture, boxes, 0, 0, picture.Width, picture.Height);

    /// <summary>The same on a part of the picture, cut at left and top out of one of the given size.</summary>
    public static Image OverPart(
        Image part,
        IReadOnlyList<PictureBox> boxes,
        int left,
        int top,
        int wholeWidth,
        int wholeHeight
    )
    {
        if (boxes.Count == 0)
        {
            return part.Copy();
        }

        var ink = part.Bands == 1 ? [Colour[1]] : Colour;
        return part.Mutate(image =>
        {
            foreach (var box in boxes)
            {
                var (x1, y1) = ((int)Math.Floor(box.X * wholeWidth) - left, (int)Math.Floor(box.Y * wholeHeight) - top);
                var (x2, y2) = (
                    (int)Math.Ceiling(box.Right * wholeWidth) - left,
                    (int)Math.Ceiling(box.Bottom * wholeHeight) - top
                );
                (x1, y1) = (Math.Max(0, x1), Math.Max(0, y1));
                (x2, y2) = (Math.Min(part.Width, x2), Math.Min(part.Height, y2));
                if (x2 > x1 && y2 > y1)
                {
                    image.DrawRect(ink, x1, y1, x2 - x1, y2 - y1, fill: true);
                }
            }
        });
    }
}
