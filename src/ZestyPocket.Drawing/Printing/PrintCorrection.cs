using SkiaSharp;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Drawing.Printing;

/// <summary>Draws a page so that a printer with a fault brings everything to its true size and place.</summary>
public static class PrintCorrection
{
    public static void Draw(SKCanvas canvas, PrinterFault fault, Action<SKCanvas> page)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(fault);
        ArgumentNullException.ThrowIfNull(page);
        var (x, y) = fault.Corrected(0, 0);
        canvas.Save();
        canvas.Translate((float)x, (float)y);
        canvas.Scale((float)(1 / fault.ScaleX), (float)(1 / fault.ScaleY));
        page(canvas);
        canvas.Restore();
    }
}
