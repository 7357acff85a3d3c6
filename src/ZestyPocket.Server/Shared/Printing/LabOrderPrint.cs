using System.Text.Json;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Shared;

/// <summary>A piece on a print of a lab, as it was drawn.</summary>
public sealed record LabOrderPiece(
    Guid PieceId,
    Guid UnitId,
    string Number,
    long CutWidthEmu,
    long CutHeightEmu,
    string? Recipe
);

/// <summary>A file of an order.</summary>
/// <param name="Size">Such as <c>4x6</c>, in inches.</param>
/// <param name="Sha256">Of the file.</param>
/// <param name="Missing">It did not come.</param>
public sealed record LabOrderPrint(
    string FileName,
    string Size,
    string Sha256,
    IReadOnlyList<LabOrderPiece> Pieces,
    bool Missing = false
)
{
    /// <summary>The files of an order.</summary>
    public static IReadOnlyList<LabOrderPrint> Of(LabOrder order)
    {
        ArgumentNullException.ThrowIfNull(order);
        return JsonSerializer.Deserialize<List<LabOrderPrint>>(order.Prints, JsonSerializerOptions.Web) ?? [];
    }
}
