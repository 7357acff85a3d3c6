namespace ZestyPocket.Core.Measures;

/// <summary>A rectangle on a page or sheet; x runs right and y runs down from the top left corner.</summary>
public readonly record struct Rect(Length X, Length Y, Length Width, Length Height)
{
    public Rect(Length x, Length y, Size size)
        : this(x, y, size.Width, size.Height) { }

    public Size Size => new(Width, Height);

    public Length Right => X + Width;

    public Length Bottom => Y + Height;

    public Rect Moved(Length dx, Length dy) => this with { X = X + dx, Y = Y + dy };

    /// <summary>Where this lies when the page of width <paramref name="pageWidth"/> is turned over sideways.</summary>
    public Rect MirroredIn(Length pageWidth) => this with { X = pageWidth - Right };

    /// <summary>A rectangle of the given size with the same centre, to half an EMU.</summary>
    public Rect Centred(Size size) => new(X + ((Width - size.Width) / 2), Y + ((Height - size.Height) / 2), size);

    /// <summary>True when the two share more than an edge.</summary>
    public bool Overlaps(Rect other) => X < other.Right && other.X < Right && Y < other.Bottom && other.Y < Bottom;

    public bool Contains(Rect other) => other.X >= X && other.Y >= Y && other.Right <= Right && other.Bottom <= Bottom;
}
