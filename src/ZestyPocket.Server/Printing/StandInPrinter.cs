using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing;

namespace ZestyPocket.Server.Printing;

/// <summary>
/// A printer that is not there: it "prints" pages with a set fault and gives back a scan of the sheet on a grey ground.
/// It stands in for a real one where none is at hand.
/// </summary>
public static class StandInPrinter
{
    /// <summary>What most printers do that are left to themselves: a sheet shrunk to what they can reach.</summary>
    public static PrinterFault UsualFault { get; } =
        new(0.97, 0.97, Length.FromMillimetres(3.2m), Length.FromMillimetres(4.1m));

    private const double ScanPixelsPerInch = 200;

    /// <summary>The scan of a sheet as it comes out, a PNG.</summary>
    /// <param name="draw">What is on the page, in points.</param>
    public static byte[] Scan(Size paper, PrinterFault fault, Action<SKCanvas> draw)
    {
        ArgumentNullException.ThrowIfNull(fault);
        ArgumentNullException.ThrowIfNull(draw);
        var (width, height, ground) = (paper.Width.Points, paper.Height.Points, 30f);
        return Raster.Png(
            width + (2 * ground),
            height + (2 * ground),
            ScanPixelsPerInch,
            canvas =>
            {
                canvas.Clear(new SKColor(128, 128, 128));
                canvas.Translate(ground, ground);
                using var white = new SKPaint { Color = SKColors.White };
                canvas.DrawRect(0, 0, (float)width, (float)height, white);
                canvas.ClipRect(new SKRect(0, 0, (float)width, (float)height));
                canvas.Translate((float)fault.OffsetX.Points, (float)fault.OffsetY.Points);
                canvas.Scale((float)fault.ScaleX, (float)fault.ScaleY);
                draw(canvas);
            }
        );
    }
}
