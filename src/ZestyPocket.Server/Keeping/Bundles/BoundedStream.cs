using System.Text;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>
/// A stream that ends with an error after so many bytes, however many a packed file would unfold into. Reading beyond
/// throws <see cref="InvalidDataException"/>.
/// </summary>
internal sealed class BoundedStream(Stream inner, long most) : Stream
{
    private long _read;

    public override bool CanRead => true;

    public override bool CanSeek => false;

    public override bool CanWrite => false;

    public override long Length => throw new NotSupportedException();

    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override int Read(byte[] buffer, int offset, int count) => Counted(inner.Read(buffer, offset, count));

    public override async ValueTask<int> ReadAsync(
        Memory<byte> buffer,
        CancellationToken cancellationToken = default
    ) => Counted(await inner.ReadAsync(buffer, cancellationToken));

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    private int Counted(int read) =>
        (_read += read) <= most ? read : throw new InvalidDataException($"It holds more than {most} bytes.");

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}

/// <summary>Lines of a text, none of them longer than so many bytes.</summary>
internal static class BoundedLines
{
    /// <summary>Throws <see cref="InvalidDataException"/> at a longer line.</summary>
    public static async IAsyncEnumerable<string> OfAsync(
        Stream content,
        int longest,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        var (buffer, filled) = (new byte[1 << 16], 0);
        while (true)
        {
            if (filled == buffer.Length)
            {
                if (buffer.Length >= longest)
                {
                    throw new InvalidDataException($"A line is longer than {longest} bytes.");
                }

                Array.Resize(ref buffer, Math.Min(buffer.Length * 2, longest));
            }

            var read = await content.ReadAsync(buffer.AsMemory(filled), cancel);
            var (from, end) = (0, filled + read);
            for (int at; (at = buffer.AsSpan(from, end - from).IndexOf((byte)'\n')) >= 0; from += at + 1)
            {
                yield return Encoding.UTF8.GetString(buffer, from, at);
            }

            filled = end - from;
            buffer.AsSpan(from, filled).CopyTo(buffer);
            if (read == 0)
            {
                if (filled > 0)
                {
                    yield return Encoding.UTF8.GetString(buffer, 0, filled);
                }

                yield break;
            }
        }
    }
}
