using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>What a candidate for a pocket is.</summary>
public enum CandidateKind
{
    Photo,

    /// <summary>A card with words: it has something to be beside.</summary>
    Words,

    /// <summary>A title: it goes first.</summary>
    Title,

    /// <summary>A pattern.</summary>
    Filler,

    /// <summary>A collage, a composition, a bought card, a keepsake.</summary>
    Other,
}

/// <summary>Something that could go into a pocket, as far as placing asks.</summary>
/// <param name="Key">Of the photo, or of the piece.</param>
public sealed record Candidate(Guid Key, CandidateKind Kind)
{
    /// <summary>Its day: of a picture the day it was taken, of a card the days it speaks of.</summary>
    public LocalDate? Day { get; init; }

    /// <summary>When a picture was taken.</summary>
    public LocalDateTime? Taken { get; init; }

    /// <summary>Mean CIE L*, 0 black to 100 white.</summary>
    public double Tone { get; init; } = 92;

    /// <summary>Mean distance from grey of its colours.</summary>
    public double Chroma { get; init; }

    /// <summary>Pictures of one moment share this.</summary>
    public Guid? GroupId { get; init; }

    /// <summary>The series it belongs to.</summary>
    public Guid? SeriesId { get; init; }

    /// <summary>64 bits that near-duplicates share; 0 when nobody measured.</summary>
    public ulong Likeness { get; init; }

    /// <summary>The photo of a picture, whatever its print is called.</summary>
    public Guid? PhotoId { get; init; }

    /// <summary>The photo that a card speaks of and stays beside.</summary>
    public Guid? SpeaksOf { get; init; }

    /// <summary>The pattern of a filler.</summary>
    public string? Pattern { get; init; }

    /// <summary>What it costs to leave it out.</summary>
    public long LeftOut { get; init; }
}

/// <summary>A pocket that is to be filled, or that holds something that stays.</summary>
public sealed record PocketToFill(PocketPlace Place, string Code, Size Cut, Size Nominal, Rect Bounds)
{
    /// <summary>The face it is on, from 0 in reading order.</summary>
    public int Face { get; init; }

    /// <summary>The spread its face lies on, from 1.</summary>
    public int Spread { get; init; }

    /// <summary>Its face lies at the right of its spread.</summary>
    public bool IsRight { get; init; }

    /// <summary>It touches the outer edge of its page.</summary>
    public bool IsOuter { get; init; }

    /// <summary>Index of the candidate that stays in it; −1 when it is to be filled.</summary>
    public int Stays { get; init; } = -1;

    /// <summary>It stays empty on purpose.</summary>
    public bool StaysEmpty { get; init; }
}

/// <summary>A term of the sum, for reasons.</summary>
public enum PlacingTerm
{
    Crop,
    Orientation,
    CutThrough,
    Resolution,
    Favourite,
    Time,
    Words,
    Place,
}

/// <summary>What it costs to put a candidate into a pocket, by term; null when it cannot go there.</summary>
public sealed record PocketPrice(ImmutableArray<(PlacingTerm Term, long Cost)> Terms)
{
    public long Total => Terms.Sum(t => t.Cost);

    /// <summary>Share of a picture that is cropped away, 0 to 1.</summary>
    public double CropLoss { get; init; }

    /// <summary>The crop cuts through something that must stay.</summary>
    public bool CutsThrough { get; init; }
}

/// <summary>
/// Which candidate goes into which pocket. Costs are whole numbers in thousandths: 1,000,000 is a picture that is lost
/// whole to its crop.
/// </summary>
/// <param name="Pockets">In reading order.</param>
/// <param name="Candidates">By time, then by key: the answer never hangs on the order of the question.</param>
/// <param name="Prices">By pocket and candidate; null where it cannot go.</param>
/// <param name="Neighbours">Pairs of pockets that touch, and the edge they share in thousandths of an inch.</param>
public sealed record SpreadQuestion(
    ImmutableArray<PocketToFill> Pockets,
    ImmutableArray<Candidate> Candidates,
    ImmutableArray<ImmutableArray<PocketPrice?>> Prices,
    ImmutableArray<(int First, int Second, int Edge)> Neighbours,
    PlacingWeights Weights
);

/// <summary>What lies where: the index of a candidate for each pocket, −1 for none.</summary>
/// <param name="Candidates">By pocket.</param>
/// <param name="Cost">The whole sum.</param>
public sealed record SpreadAnswer(ImmutableArray<int> Candidates, long Cost);
