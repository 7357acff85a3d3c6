using ZestyPocket.Core.Printing;
using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Printing;

/// <summary>A print run: asked for once (by its key), drawn by a job that survives a restart.</summary>
public sealed class PrintJob : AskedJob
{
    public List<Guid> UnitIds { get; set; } = [];

    public required string PaperKey { get; set; }

    public long MarginEmu { get; set; }

    public long GapEmu { get; set; }

    /// <summary>The keeper knows what would not come out as it should and prints all the same.</summary>
    public bool DespiteDoubts { get; set; }

    /// <summary>The printer whose fault the sheets make up for; null for none.</summary>
    public Guid? PrinterId { get; set; }

    public PrintChoice Choice { get; set; }

    /// <summary>The pieces, when they were chosen.</summary>
    public List<Guid> PieceIds { get; set; } = [];

    public SheetOptions Options { get; set; } = SheetOptions.Usual;

    public int PagesDone { get; set; }

    public int PagesTotal { get; set; }
}
