using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Counting;

/// <summary>Counts a unit's pieces as the tally does.</summary>
public sealed class PieceCount(UnitOpener opener, CountReader counts) : IPieceCount
{
    public async Task<int> OfUnitAsync(Guid unitId, CancellationToken cancel) =>
        (await counts.TalliesAsync([await opener.OpenAsync(unitId, cancel)], cancel))[0].Pieces;
}
