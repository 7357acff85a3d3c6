using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Binder;

/// <summary>What goes into or onto the binder itself.</summary>
public enum InsertKind
{
    Spine,
    Cover,
    Tab,
}

/// <summary>A piece for the binder.</summary>
/// <param name="Cut">What it is cut to; a spine lies on its side, as its words are read.</param>
/// <param name="Words">What stands on it.</param>
public sealed record BinderInsert(InsertKind Kind, Size Cut, string Words);

/// <summary>The windows of a binder for paper, as its keeper measured them; zero where there is none.</summary>
public sealed record BinderInserts(Length SpineWidth, Length SpineHeight, Length CoverWidth, Length CoverHeight)
{
    public static BinderInserts None { get; } = new(default, default, default, default);

    /// <summary>A sheet is so much smaller than its window each way, so that it slides in. Common practice.</summary>
    public static Length Ease => Length.FromInches(1, 16);

    /// <summary>
    /// The label of an index tab, folded in the middle over the edge: 1 1/2 in wide and twice 1/2 in high. Common
    /// practice.
    /// </summary>
    public static Size TabLabel => Size.FromInches(1.5m, 1);

    public Size? Spine => SpineWidth > Length.Zero ? new Size(SpineWidth, SpineHeight) : null;

    public Size? Cover => CoverWidth > Length.Zero ? new Size(CoverWidth, CoverHeight) : null;

    /// <summary>The sizes as measured; null for a window there is not. Throws <see cref="RuleException"/>.</summary>
    public static BinderInserts Of(Size? spine, Size? cover)
    {
        var (least, most) = (Length.FromInches(1, 4), Length.FromInches(24));
        if (
            new[] { spine, cover }
                .OfType<Size>()
                .Any(s => s.Width < least || s.Height < least || s.Width > most || s.Height > most)
        )
        {
            throw new RuleException("The window of a binder is 1/4 to 24 in wide and high. Nothing was changed.");
        }

        return new BinderInserts(
            spine?.Width ?? default,
            spine?.Height ?? default,
            cover?.Width ?? default,
            cover?.Height ?? default
        );
    }

    /// <summary>The pieces of an album: spine and cover of each volume, and a label for each index tab.</summary>
    public ImmutableArray<BinderInsert> Pieces(IEnumerable<string> volumes, IEnumerable<string> tabs)
    {
        ArgumentNullException.ThrowIfNull(volumes);
        var pieces = ImmutableArray.CreateBuilder<BinderInsert>();
        foreach (var volume in volumes)
        {
            if (Spine is { } spine)
            {
                pieces.Add(new(InsertKind.Spine, new Size(spine.Height - Ease, spine.Width - Ease), volume));
            }

            if (Cover is { } cover)
            {
                pieces.Add(new(InsertKind.Cover, new Size(cover.Width - Ease, cover.Height - Ease), volume));
            }
        }

        pieces.AddRange(tabs.Select(words => new BinderInsert(InsertKind.Tab, TabLabel, words)));
        return pieces.ToImmutable();
    }
}
