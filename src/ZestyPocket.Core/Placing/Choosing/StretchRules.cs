using System.Collections.Immutable;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>A series whose picture lies in the same pocket of every unit.</summary>
/// <param name="SeriesId">The series.</param>
/// <param name="Pocket">The pocket's code without the unit's, such as <c>L3</c>.</param>
public sealed record SeriesPocket(Guid SeriesId, string Pocket);

/// <summary>What units that are placed together have in common.</summary>
public sealed record StretchRules
{
    public const int MostWords = 20;

    public const int MostSeries = 20;

    /// <summary>Each has a title card, and it lies in the first pocket.</summary>
    public bool TitleFirst { get; init; }

    /// <summary>Each has at least so many cards with words, 0 to 20; empty ones are added to write on.</summary>
    public int Words { get; init; }

    public ImmutableArray<SeriesPocket> Series { get; init; } = [];

    /// <summary>Throws <see cref="RuleException"/> when a rule makes no sense.</summary>
    public StretchRules Checked()
    {
        if (Words is < 0 or > MostWords)
        {
            throw new RuleException($"Ask for 0 to {MostWords} cards of words. Nothing was changed.");
        }

        var series = Series.IsDefault ? [] : Series.RemoveAll(s => s is null);
        return
            series.Length > MostSeries
            || series.DistinctBy(s => s.SeriesId).Count() != series.Length
            || series.DistinctBy(s => s.Pocket).Count() != series.Length
            || series.Any(s => s.Pocket is null or { Length: 0 or > 12 })
            ? throw new RuleException("Each series has one pocket, and each pocket one series. Nothing was changed.")
            : this with
            {
                Series = series,
            };
    }
}
