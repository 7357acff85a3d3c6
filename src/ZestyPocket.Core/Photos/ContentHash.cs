using System.Diagnostics.CodeAnalysis;

namespace ZestyPocket.Core.Photos;

/// <summary>
/// What a file is known by: the SHA-256 of its bytes, always 64 lower-case hexadecimal digits. There is no other value
/// of this type, so that a text from elsewhere can never name a file that it should not. Source: FIPS 180-4.
/// </summary>
public sealed record ContentHash
{
    /// <summary>Digits of a hash.</summary>
    public const int Digits = 64;

    private readonly string _digits;

    private ContentHash(string digits) => _digits = digits;

    /// <summary>The hash of 32 bytes. Throws <see cref="ArgumentException"/> for any other number of them.</summary>
    public static ContentHash Of(ReadOnlySpan<byte> sha256) =>
        sha256.Length * 2 == Digits
            ? new ContentHash(Convert.ToHexStringLower(sha256))
            : throw new ArgumentException($"A hash has {Digits / 2} bytes.", nameof(sha256));

    /// <summary>Reads 64 lower-case hexadecimal digits; false for anything else.</summary>
    public static bool TryParse(string? text, [NotNullWhen(true)] out ContentHash? hash)
    {
        hash =
            text is { Length: Digits } && text.All(c => c is (>= '0' and <= '9') or (>= 'a' and <= 'f'))
                ? new ContentHash(text)
                : null;
        return hash is not null;
    }

    /// <summary>Reads 64 lower-case hexadecimal digits; <see cref="FormatException"/> for anything else.</summary>
    public static ContentHash Parse(string text) =>
        TryParse(text, out var hash)
            ? hash
            : throw new FormatException($"The hash of a file is {Digits} lower-case hexadecimal digits.");

    /// <summary>The first digits, for people.</summary>
    public string Beginning => _digits[..12];

    /// <summary>The 64 digits.</summary>
    public override string ToString() => _digits;
}
