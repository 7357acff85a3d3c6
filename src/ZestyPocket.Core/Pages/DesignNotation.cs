using System.Collections.Immutable;
using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>
/// The open text notation for page designs: nested splits.
/// <code>
/// design = rows
/// rows   = row { "/" row }        rows one under another; all equally wide
/// row    = item { "|" item }      items side by side; all equally tall
/// item   = size | "(" rows ")"    a pocket such as 6x4, or a nested split
/// </code>
/// Sizes have decimals, not fractions: 2.5x8, because a stroke begins a new row.
/// Example: <c>6x4 | 3x4 / 6x4 | 3x4 / 6x4 | 3x4</c> is a 9x12 page. A page whose pieces do not add up to a
/// rectangle is refused, with the place in the text.
/// </summary>
public static class DesignNotation
{
    /// <summary>Longest notation, in characters.</summary>
    public const int LongestText = 8_000;

    /// <summary>Splits may be nested this deep; pages that people use have three levels.</summary>
    public const int DeepestSplit = 16;

    /// <summary>Most pockets of one page; a 12x12 page of 1 in squares has 144.</summary>
    public const int MostPockets = 400;

    public static (Size Body, ImmutableArray<Pocket> Pockets) Parse(string notation)
    {
        ArgumentNullException.ThrowIfNull(notation);
        if (notation.Length > LongestText)
        {
            throw new MeasureException(
                $"The page design has {notation.Length:N0} characters; {LongestText:N0} at most can be read."
            );
        }

        var reader = new Reader(notation);
        var block = reader.Rows(string.Empty);
        reader.ExpectEnd();
        return (block.Size, block.Pockets);
    }

    private sealed record Block(Size Size, ImmutableArray<Pocket> Pockets)
    {
        public IEnumerable<Pocket> At(Length x, Length y) =>
            Pockets.Select(p => p with { Bounds = p.Bounds.Moved(x, y) });
    }

    private sealed class Reader(string text)
    {
        private int _at;
        private int _depth;
        private int _pockets;

        public Block Rows(string path)
        {
            var rows = new List<Block>();
            var y = Length.Zero;
            var pockets = ImmutableArray.CreateBuilder<Pocket>();
            do
            {
                var start = _at;
                var row = Row(Join(path, rows.Count + 1));
                if (rows.Count > 0 && row.Size.Width != rows[0].Size.Width)
                {
                    throw Fault(
                        start,
                        $"this row is {Show(row.Size.Width)} wide, the first one {Show(rows[0].Size.Width)}"
                    );
                }

                pockets.AddRange(row.At(Length.Zero, y));
                y += row.Size.Height;
                rows.Add(row);
            } while (Take('/'));
            return new Block(new Size(rows[0].Size.Width, y), pockets.ToImmutable());
        }

        private Block Row(string path)
        {
            var items = new List<Block>();
            var x = Length.Zero;
            var pockets = ImmutableArray.CreateBuilder<Pocket>();
            do
            {
                var start = _at;
                var item = Item(Join(path, items.Count + 1));
                if (items.Count > 0 && item.Size.Height != items[0].Size.Height)
                {
                    throw Fault(
                        start,
                        $"this pocket is {Show(item.Size.Height)} tall, its neighbour {Show(items[0].Size.Height)}"
                    );
                }

                pockets.AddRange(item.At(x, Length.Zero));
                x += item.Size.Width;
                items.Add(item);
            } while (Take('|'));
            return new Block(new Size(x, items[0].Size.Height), pockets.ToImmutable());
        }

        private Block Item(string path)
        {
            if (Take('('))
            {
                if (++_depth > DeepestSplit)
                {
                    throw Fault(_at - 1, $"splits are nested more than {DeepestSplit} deep");
                }

                var inner = Rows(path);
                _depth--;
                return Take(')') ? inner : throw Fault(_at, "a closing bracket is missing");
            }

            SkipBlanks();
            var start = _at;
            while (_at < text.Length && !"|/()".Contains(text[_at], StringComparison.Ordinal))
            {
                _at++;
            }

            Size size;
            try
            {
                size = MeasureText.ParseSize(text[start.._at]);
            }
            catch (MeasureException reason)
            {
                var stroke =
                    _at < text.Length
                    && text[_at] == '/'
                    && start < _at
                    && char.IsAsciiDigit(text[_at - 1])
                    && !text[start.._at].Contains('x', StringComparison.OrdinalIgnoreCase);
                throw Fault(
                    start,
                    stroke
                        ? "a stroke begins a new row here: write fractions as decimals, such as 2.5x8"
                        : reason.Message
                );
            }

            if (++_pockets > MostPockets)
            {
                throw Fault(start, $"a page has {MostPockets} pockets at most");
            }

            return new Block(size, [new Pocket(path, new Rect(Length.Zero, Length.Zero, size))]);
        }

        public void ExpectEnd()
        {
            SkipBlanks();
            if (_at < text.Length)
            {
                throw Fault(_at, $"“{text[_at]}” is not expected here");
            }
        }

        private bool Take(char wanted)
        {
            SkipBlanks();
            if (_at >= text.Length || text[_at] != wanted)
            {
                return false;
            }

            _at++;
            return true;
        }

        private void SkipBlanks()
        {
            while (_at < text.Length && char.IsWhiteSpace(text[_at]))
            {
                _at++;
            }
        }

        private static string Join(string path, int number)
        {
            var step = number.ToString(CultureInfo.InvariantCulture);
            return path.Length == 0 ? step : $"{path}.{step}";
        }

        private static string Show(Length length) => MeasureText.Show(length, MeasureSystem.Inches);

        private static MeasureException Fault(int position, string reason) =>
            new($"The page design does not work at character {position + 1}: {reason}.");
    }
}
