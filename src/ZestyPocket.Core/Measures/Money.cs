using System.Collections.Immutable;
using System.Globalization;

namespace ZestyPocket.Core.Measures;

/// <summary>A sum of money.</summary>
/// <param name="Currency">Three letters of ISO 4217.</param>
public sealed record Money(decimal Amount, string Currency)
{
    private const decimal Most = 1_000_000_000;

    /// <summary>Throws <see cref="RuleException"/> when it is no sum that is paid.</summary>
    public Money Checked() =>
        Amount is >= 0 and <= Most
            ? this with
            {
                Currency = CodeOf(Currency),
            }
            : throw new RuleException("A sum is between 0 and 1,000,000,000. Nothing was changed.");

    /// <summary>Such as <c>12.50 EUR</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Amount:N2} {Currency}");

    /// <summary>The code in capitals. Throws <see cref="RuleException"/> for anything but three letters.</summary>
    public static string CodeOf(string written)
    {
        var code = (written ?? "").Trim().ToUpperInvariant();
        return code.Length == 3 && code.All(char.IsAsciiLetterUpper)
            ? code
            : throw new RuleException(
                $"“{written}” is no currency: write three letters, such as EUR. Nothing was changed."
            );
    }
}

/// <summary>What one unit of a currency cost.</summary>
/// <param name="InHome">In the currency of the sums, above 0.</param>
public sealed record CurrencyRate(string Currency, decimal InHome)
{
    /// <summary>Throws <see cref="RuleException"/> when it makes no sense.</summary>
    public CurrencyRate Checked() =>
        InHome is > 0 and < 1_000_000
            ? this with
            {
                Currency = Money.CodeOf(Currency),
            }
            : throw new RuleException("A rate is above 0. Nothing was changed.");
}

/// <summary>Sums in the home currency, and what has no rate and is in no sum.</summary>
public sealed record MoneySums(decimal Total, ImmutableArray<Money> WithoutRate)
{
    /// <summary>Exact sums, rounded to a hundredth once, at the end.</summary>
    public static MoneySums Of(IEnumerable<Money> all, string home, IEnumerable<CurrencyRate> rates)
    {
        ArgumentNullException.ThrowIfNull(all);
        var known = rates.ToDictionary(r => r.Currency, r => r.InHome);
        known[home] = 1;
        var by = all.GroupBy(m => m.Currency)
            .Select(g => new Money(g.Sum(m => m.Amount), g.Key))
            .OrderBy(m => m.Currency, StringComparer.Ordinal)
            .ToList();
        var sum = by.Where(m => known.ContainsKey(m.Currency)).Sum(m => m.Amount * known[m.Currency]);
        return new MoneySums(
            Math.Round(sum, 2, MidpointRounding.ToEven),
            [.. by.Where(m => !known.ContainsKey(m.Currency))]
        );
    }
}
