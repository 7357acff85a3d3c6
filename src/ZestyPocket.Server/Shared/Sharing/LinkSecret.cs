using System.Security.Cryptography;
using System.Text;

namespace ZestyPocket.Server.Shared;

/// <summary>The secret of a private link. Only its hash is kept: who reads the database cannot use it.</summary>
public static class LinkSecret
{
    /// <summary>128 random bits and more cannot be guessed. Source: OWASP ASVS 5, 7.2.3 (from memory).</summary>
    private const int Bytes = 24;

    /// <summary>192 random bits, lower-case hex.</summary>
    public static string New() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>
    /// A secret that somebody writes down: 79 random bits in four groups, without signs that look alike.
    /// </summary>
    public static string NewCode()
    {
        var signs = RandomNumberGenerator.GetItems<char>("abcdefghjkmnpqrstuvwxyz23456789", 16);
        return string.Join('-', signs.Chunk(4).Select(g => new string(g)));
    }

    /// <summary>SHA-256, lower-case hex; enough for what is random and long.</summary>
    public static string HashOf(string secret)
    {
        ArgumentNullException.ThrowIfNull(secret);
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret.Trim())));
    }

    /// <summary>An address on this server. After the #, so that it is in no log of any server or proxy.</summary>
    public static string Path(string page, string secret) => $"/{page}#{secret}";
}
