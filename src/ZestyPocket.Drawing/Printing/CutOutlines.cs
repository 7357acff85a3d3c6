using System.Globalization;
using System.Text;
using System.Xml;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Drawing.Printing;

/// <summary>
/// Outlines of a sheet's pieces for a cutting machine: an SVG in real units (SVG 1.1, one user unit a point, width and
/// height in millimetres), with a layer for the stock, one for fold lines, one for
/// punch holes, one for labels and one for register marks.
/// </summary>
public static class CutOutlines
{
    /// <summary>How far the register marks lie from the edges of the sheet: in its margin.</summary>
    private static Length MarkEdge => Length.FromMillimetres(2);

    private static Length MarkArm => Length.FromMillimetres(3);

    /// <param name="face">Gives each piece its face, which knows its outline.</param>
    public static string Svg(PlannedSheet sheet, Size paper, Func<DuePiece, PieceFace> face)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(face);
        var text = new StringBuilder();
        using (var svg = XmlWriter.Create(text, new XmlWriterSettings { Indent = true, OmitXmlDeclaration = true }))
        {
            svg.WriteStartElement("svg", "http://www.w3.org/2000/svg");
            svg.WriteAttributeString("width", $"{N(paper.Width.Millimetres)}mm");
            svg.WriteAttributeString("height", $"{N(paper.Height.Millimetres)}mm");
            svg.WriteAttributeString("viewBox", $"0 0 {N(paper.Width.Points)} {N(paper.Height.Points)}");
            Layer(svg, "register-marks", "#000000", () => Marks(svg, paper));
            Layer(
                svg,
                $"cut-{Stocks.Name(sheet.Stock).Replace(' ', '-')}",
                "#d0006f",
                () =>
                {
                    foreach (var piece in sheet.Pieces)
                    {
                        Path(svg, PathOf(piece, face(piece.Due)), Placed(piece), piece.Due.Number);
                    }
                }
            );
            Layer(
                svg,
                "fold",
                "#0072b2",
                () =>
                {
                    foreach (var piece in sheet.Pieces)
                    {
                        foreach (var fold in piece.Due.Marks.Folds)
                        {
                            var line = $"M{N(fold.Points)} 0V{N(piece.Due.Cut.Height.Points)}";
                            Path(svg, line, Placed(piece), null);
                        }
                    }
                }
            );
            Layer(
                svg,
                "punch",
                "#d0006f",
                () =>
                {
                    foreach (var piece in sheet.Pieces)
                    {
                        foreach (var hole in piece.Due.Marks.Holes)
                        {
                            Path(svg, Circle(hole), Placed(piece), null);
                        }
                    }
                }
            );
            Layer(
                svg,
                "labels",
                "none",
                () =>
                {
                    foreach (var piece in sheet.Pieces)
                    {
                        svg.WriteStartElement("text");
                        svg.WriteAttributeString("x", N(piece.Bounds.X.Points + 4));
                        svg.WriteAttributeString("y", N(piece.Bounds.Bottom.Points - 4));
                        svg.WriteAttributeString("font-size", "7");
                        svg.WriteAttributeString("fill", "#444444");
                        svg.WriteString(piece.Due.Number);
                        svg.WriteEndElement();
                    }
                }
            );
            svg.WriteEndElement();
        }

        return text.ToString();
    }

    /// <summary>The outline of a piece in its own upright place: of its finish, or the rectangle that is cut.</summary>
    private static string PathOf(PlannedPiece piece, PieceFace face) =>
        face is FinishedFace { Parts: [{ Outline: { IsPlain: false } outline }] }
            ? outline.Path()
            : string.Create(
                CultureInfo.InvariantCulture,
                $"M0 0H{N(piece.Due.Cut.Width.Points)}V{N(piece.Due.Cut.Height.Points)}H0Z"
            );

    private static string Circle(PunchHole hole)
    {
        var r = N(hole.Diameter.Points / 2);
        var (left, across) = (N(hole.X.Points - (hole.Diameter.Points / 2)), N(hole.Diameter.Points));
        return $"M{left} {N(hole.Y.Points)}a{r} {r} 0 1 0 {across} 0a{r} {r} 0 1 0 -{across} 0Z";
    }

    private static string Placed(PlannedPiece piece)
    {
        var (x, y) = piece.Quarters switch
        {
            1 => (piece.Bounds.Right, piece.Bounds.Y),
            2 => (piece.Bounds.Right, piece.Bounds.Bottom),
            3 => (piece.Bounds.X, piece.Bounds.Bottom),
            _ => (piece.Bounds.X, piece.Bounds.Y),
        };
        var move = $"translate({N(x.Points)} {N(y.Points)})";
        return piece.Quarters == 0 ? move : $"{move} rotate({90 * piece.Quarters})";
    }

    private static void Layer(XmlWriter svg, string name, string stroke, Action draw)
    {
        svg.WriteStartElement("g");
        svg.WriteAttributeString("id", name);
        svg.WriteAttributeString("fill", "none");
        svg.WriteAttributeString("stroke", stroke);
        svg.WriteAttributeString("stroke-width", "0.25");
        draw();
        svg.WriteEndElement();
    }

    private static void Path(XmlWriter svg, string path, string transform, string? name)
    {
        svg.WriteStartElement("path");
        svg.WriteAttributeString("d", path);
        svg.WriteAttributeString("transform", transform);
        if (name is not null)
        {
            svg.WriteAttributeString("data-piece", name);
        }

        svg.WriteEndElement();
    }

    private static void Marks(XmlWriter svg, Size paper)
    {
        foreach (var (x, right) in new[] { (MarkEdge, 1), (paper.Width - MarkEdge, -1) })
        {
            foreach (var (y, down) in new[] { (MarkEdge, 1), (paper.Height - MarkEdge, -1) })
            {
                var (across, along) = (N((x + (right * MarkArm)).Points), N((y + (down * MarkArm)).Points));
                Path(svg, $"M{across} {N(y.Points)}H{N(x.Points)}V{along}", "translate(0 0)", null);
            }
        }
    }

    private static string N(double value) => value.ToString("0.#####", CultureInfo.InvariantCulture);

    private static string N(decimal value) => value.ToString("0.#####", CultureInfo.InvariantCulture);
}
