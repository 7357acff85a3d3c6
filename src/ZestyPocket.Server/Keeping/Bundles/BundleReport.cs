using ZestyPocket.Core.Measures;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>What is said of a bundle that was read: each line once, and no more than somebody would read.</summary>
internal sealed class BundleReport
{
    private const int MostLines = 100;

    private readonly List<string> _lines = [];
    private readonly HashSet<string> _said = new(StringComparer.Ordinal);
    private int _more;

    public void Add(string line)
    {
        if (_said.Count >= MostLines)
        {
            _more += _said.Contains(line) ? 0 : 1;
        }
        else if (_said.Add(line))
        {
            _lines.Add(line);
        }
    }

    public IReadOnlyList<string> Lines =>
        _more == 0 ? [.. _lines] : [.. _lines, $"And {NumberWords.Counted(_more, "line")} more of that kind."];
}
