using ZestyPocket.Core;

namespace ZestyPocket.Server.Shared;

/// <summary>Takes a file that is sent as the body of a request into memory, up to a limit.</summary>
public static class WholeBody
{
    /// <summary>Throws <see cref="RuleException"/> for a larger one.</summary>
    public static async Task<byte[]> ReadAsync(HttpRequest request, string name, int largest, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        using var content = new MemoryStream();
        var buffer = new byte[1 << 16];
        int read;
        while ((read = await request.Body.ReadAsync(buffer, cancel)) > 0)
        {
            content.Write(buffer, 0, read);
            if (content.Length > largest)
            {
                throw new RuleException($"{name} is larger than {largest >> 20} MB. Nothing was taken: split it.");
            }
        }

        return content.ToArray();
    }
}
