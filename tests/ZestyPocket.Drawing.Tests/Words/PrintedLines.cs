using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Words;

/// <summary>A text set in a column, printed, and read back from the PDF by PdfPig.</summary>
internal sealed class PrintedLines : IDisposable
{
    private readonly string _path = Path.GetTempFileName();
    private readonly PdfDocument _pdf;
    private readonly List<Word> _words;

    public PrintedLines(FontShelf fonts, Typeface face, string text, double width)
    {
        var fit = Copyfit.Fit(text, width, 60, new TypeRange(face, 10, 10, 1.2), fonts);
        using (var file = new FileStream(_path, FileMode.Truncate, FileAccess.ReadWrite))
        {
            PdfFile.Write(
                file,
                "Lines",
                [
                    new PdfPage(
                        width,
                        60,
                        canvas =>
                        {
                            foreach (var line in fit.Lines)
                            {
                                fonts.Draw(canvas, TypeRun.Of(line, face, fit.SizePt, new Rgb(0, 0, 0)));
                            }
                        }
                    ),
                ]
            );
        }

        _pdf = PdfDocument.Open(_path);
        _words = [.. _pdf.GetPage(1).GetWords()];
    }

    /// <summary>The words in Latin letters and digits, as they stand on the paper from left to right.</summary>
    public IReadOnlyList<string> Words => [.. _words.Select(w => w.Text).Where(t => t.All(char.IsAscii))];

    public double LeftOf(string word) => _words.Single(w => w.Text == word).BoundingBox.Left;

    public void Dispose()
    {
        _pdf.Dispose();
        File.Delete(_path);
    }
}
