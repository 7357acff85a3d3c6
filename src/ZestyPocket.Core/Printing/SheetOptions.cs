using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>What the keeper wishes of the sheets.</summary>
public sealed record SheetOptions
{
    public static SheetOptions Usual { get; } = new();

    /// <summary>Pieces of one week or day share no sheet with those of another.</summary>
    public bool UnitPerSheet { get; init; }

    /// <summary>A second pass prints the number of every piece on its back.</summary>
    public bool NumbersOnBack { get; init; }

    /// <summary>How far a piece is printed beyond its cut edge; common are 3 mm and 1/8 in. 0 to 10 mm.</summary>
    public Length Bleed { get; init; }

    /// <summary>Marks at the corners of the pieces instead of lines where they are cut.</summary>
    public bool CropMarks { get; init; }

    /// <summary>
    /// A back keeps this far from the edges of its front, so that none of it shows around the front when the printer
    /// sets it a little aside. 0 to 10 mm.
    /// </summary>
    public Length SafeEdge { get; init; }

    /// <summary>What is larger than the paper is printed in parts that are joined.</summary>
    public bool Tiles { get; init; }

    /// <summary>Starts on what is left of other prints.</summary>
    public bool UseLeftovers { get; init; } = true;

    /// <summary>How many of each piece, 1 to 20.</summary>
    public int Copies { get; init; } = 1;

    /// <summary>Only what is printed on this stock; null for everything.</summary>
    public Stock? Only { get; init; }

    /// <summary>Refuses measures that nobody cuts.</summary>
    public void Check()
    {
        var most = Length.FromMillimetres(10);
        if (Bleed < Length.Zero || Bleed > most || SafeEdge < Length.Zero || SafeEdge > most)
        {
            throw new MeasureException("A bleed and a safe edge are between 0 and 10 mm.");
        }

        if (Copies is < 1 or > 20)
        {
            throw new RuleException("Of each piece 1 to 20 are printed at once. Nothing was printed.");
        }
    }
}

/// <summary>A paper that can be printed on besides the loaded one, or what is known of the loaded one.</summary>
/// <param name="Stock">What it is.</param>
/// <param name="Paper">Its size.</param>
public sealed record SheetOnHand(Stock Stock, Paper Paper)
{
    /// <summary>How many there are; null when nobody counts.</summary>
    public int? Count { get; init; }

    /// <summary>What one costs; null when it is not known.</summary>
    public decimal? Price { get; init; }

    /// <summary>It has a grain or a pattern with a direction: no piece is turned on it.</summary>
    public bool HasDirection { get; init; }

    /// <summary>Its back can be printed on.</summary>
    public bool BothSides { get; init; } = true;

    /// <summary>What is left over from another print; null for new sheets.</summary>
    public Guid? LeftoverId { get; init; }

    /// <summary>The free part of a sheet that was printed on; null when the whole of it can be printed on.</summary>
    public Rect? Free { get; init; }
}
