using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Every letter half an em wide: widths can be counted by hand.</summary>
internal sealed class EvenShaper : ITextShaper
{
    public static EvenShaper Only { get; } = new();

    public FaceMetrics Metrics(Typeface face) => new(0.8, 0.2);

    public ShapedText Shape(Typeface face, string paragraph) =>
        new(paragraph, [.. Enumerable.Range(0, paragraph.Length + 1).Select(i => i * 0.5)]);
}
