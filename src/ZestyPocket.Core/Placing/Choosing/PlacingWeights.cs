namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>
/// How much each wish counts when pieces are given their pockets: 1 is usual, 0 not at all, at most 3.
/// </summary>
/// <param name="LessCropping">Pictures keep their area and their orientation.</param>
/// <param name="Sharpness">No picture goes where it prints under 200 ppi.</param>
/// <param name="FavouritesLarge">Favourites get the large pockets.</param>
/// <param name="InOrderOfTime">Pictures lie in reading order.</param>
/// <param name="EveryDay">Every day of the unit has its turn before another has its third picture.</param>
/// <param name="LookalikesApart">Pictures of one moment do not touch.</param>
/// <param name="PicturesTogether">Pictures lie side by side, not scattered among cards.</param>
/// <param name="WordsBesidePictures">A card lies beside a picture of its day.</param>
/// <param name="Calm">Dark pictures do not touch; the left and the right page are as heavy as each other.</param>
/// <param name="BookEnds">The same pattern lies at the outer edge of both pages.</param>
public sealed record PlacingWeights(
    double LessCropping = 1,
    double Sharpness = 1,
    double FavouritesLarge = 1,
    double InOrderOfTime = 1,
    double EveryDay = 1,
    double LookalikesApart = 1,
    double PicturesTogether = 1,
    double WordsBesidePictures = 1,
    double Calm = 1,
    double BookEnds = 0
)
{
    public const double Most = 3;

    public static PlacingWeights Usual { get; } = new();

    /// <summary>
    /// What people who keep to one way of working would choose, by name. Source: where practice divides, common
    /// practice; the numbers are this program's own.
    /// </summary>
    public static IReadOnlyList<(string Name, PlacingWeights Weights)> Presets { get; } =
    [
        ("Usual", Usual),
        ("Strictly by time", Usual with { InOrderOfTime = 3, PicturesTogether = 0.5, Calm = 0.5 }),
        ("Mixed, the best look", Usual with { InOrderOfTime = 0, Calm = 2, FavouritesLarge = 1.5 }),
        ("Words first", Usual with { WordsBesidePictures = 3 }),
        ("Nothing cropped", Usual with { LessCropping = 3, FavouritesLarge = 0.5, Calm = 0.5 }),
        ("Calm, with book-ends", Usual with { Calm = 3, BookEnds = 2, InOrderOfTime = 0.5 }),
    ];

    /// <summary>Throws <see cref="RuleException"/> when a weight is not 0 to 3.</summary>
    public PlacingWeights Checked() =>
        new[]
        {
            LessCropping,
            Sharpness,
            FavouritesLarge,
            InOrderOfTime,
            EveryDay,
            LookalikesApart,
            PicturesTogether,
            WordsBesidePictures,
            Calm,
            BookEnds,
        }.All(w => w is >= 0 and <= Most)
            ? this
            : throw new RuleException("Each priority is 0 to 3. Nothing was changed.");
}
