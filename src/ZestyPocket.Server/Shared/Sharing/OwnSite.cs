using ZestyPocket.Core;

namespace ZestyPocket.Server.Shared;

/// <summary>What stands before a link in a letter: always this server, never what somebody else would like.</summary>
public static class OwnSite
{
    /// <summary>
    /// The site as the window that asks has it in its address, such as <c>https://albums.example.org</c>; empty when it
    /// says none. Throws <see cref="RuleException"/> for any other server than the one that is asked.
    /// </summary>
    public static string Of(IHttpContextAccessor http, string? site)
    {
        ArgumentNullException.ThrowIfNull(http);
        if (string.IsNullOrEmpty(site))
        {
            return string.Empty;
        }

        return
            Uri.TryCreate(site, UriKind.Absolute, out var asked)
            && (asked.Scheme == Uri.UriSchemeHttp || asked.Scheme == Uri.UriSchemeHttps)
            && asked is { UserInfo: "", PathAndQuery: "/", Fragment: "" }
            && http.HttpContext?.Request.Host is { HasValue: true } host
            && Uri.TryCreate($"{asked.Scheme}://{host}", UriKind.Absolute, out var own)
            && asked.Authority.Equals(own.Authority, StringComparison.OrdinalIgnoreCase)
            ? asked.GetLeftPart(UriPartial.Authority)
            : throw new RuleException($"“{site}” is not this server. Nothing was sent: copy the link instead.");
    }
}
