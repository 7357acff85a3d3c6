using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>Says what pieces are printed on; null for what is usual.</summary>
public sealed record PrintPiecesOn(IReadOnlyList<Guid> PieceIds, Stock? Stock = null) : ContentEdit
{
    public override string Label() => "Change what a piece is printed on";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        if (PieceIds.Count == 0)
        {
            throw new RuleException("Choose at least one piece. Nothing was changed.");
        }

        var content = PieceIds
            .Distinct()
            .Aggregate(desk.Content, (now, id) => now.Change(id, p => p with { PrintedOn = Stock }));
        var on = Stocks.Name(desk.Words.StockOf(content.Find(PieceIds[0])!));
        return new Edited(content, $"Changed the paper{desk.Where(PieceIds[0])} to {on}", PieceIds[0]);
    }
}

/// <summary>Gives a picture its line on the legend; an empty line takes it off.</summary>
public sealed record NameInLegend(Guid PieceId, string Line) : ContentEdit
{
    public override string Label() => "Change a line of the legend";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var line = PlainWords.Clean(Line).ReplaceLineEndings(" ").Trim();
        if (line.Length > Legend.LongestLine)
        {
            throw new RuleException(
                $"A line of the legend has {Legend.LongestLine} characters at most. Nothing was changed: shorten it."
            );
        }

        var content = desk.Content.Change(
            PieceId,
            piece =>
                piece is PhotoPrint print
                    ? print with
                    {
                        LegendLine = line.Length == 0 ? null : line,
                    }
                    : throw new RuleException("Only pictures have a line on the legend. Nothing was changed.")
        );
        return new Edited(
            content,
            line.Length == 0 ? "Removed a picture from the legend" : $"Added a picture to the legend: {line}",
            PieceId
        );
    }
}

/// <summary>A step by hand as written.</summary>
/// <param name="RoomAt">The edge along which the piece keeps room for it; null for none.</param>
/// <param name="Room">How deep that room is, such as <c>1/2 in</c>.</param>
public sealed record WrittenStep(HandStepKind Kind, string Words = "", PieceEdge? RoomAt = null, string? Room = null)
{
    public static WrittenStep Of(HandStep step, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(step);
        return new WrittenStep(
            step.Kind,
            step.Words,
            step.RoomAt,
            step.RoomAt is null ? null : MeasureText.Show(step.Room, measures)
        );
    }

    /// <summary>Throws <see cref="RuleException"/> when the room makes no sense.</summary>
    public HandStep ToStep()
    {
        var words = PlainWords.Clean(Words).Trim();
        if (RoomAt is not { } edge)
        {
            return new HandStep(Kind, words);
        }

        var room = string.IsNullOrWhiteSpace(Room) ? Length.FromInches(1, 2) : MeasureText.ParseLength(Room);
        return room < Length.FromInches(1, 4) || room > Length.FromInches(3)
            ? throw new RuleException("Room for a step is 1/4 to 3 in deep. Nothing was changed.")
            : new HandStep(Kind, words) { RoomAt = edge, Room = room };
    }
}

/// <summary>Says what is done to a piece by hand after it was printed.</summary>
public sealed record PlanSteps(Guid PieceId, IReadOnlyList<WrittenStep> Steps) : ContentEdit
{
    public override string Label() => "Change the steps by hand";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        // A list from outside may hold nothing where a step should be.
        var steps = Steps.OfType<WrittenStep>().ToList();
        if (steps.Count > HandStep.Most || steps.Any(s => s.Words.Length > HandStep.LongestWords))
        {
            throw new RuleException(
                $"A piece has {HandStep.Most} steps at most, each of {HandStep.LongestWords} characters. Nothing was "
                    + "changed."
            );
        }

        var planned = steps.Select(s => s.ToStep()).ToList();
        if (
            desk.Content.Find(PieceId) is { } found
            && HandStep.LeaveRoom(new Rect(default, default, desk.Pages.CutSizeOf(desk.Content, found)), planned)
                is null
        )
        {
            throw new RuleException(
                "That leaves less than half an inch of the piece. Nothing was changed: keep less room for the steps."
            );
        }

        var content = desk.Content.Change(PieceId, piece => piece with { Steps = [.. planned] });
        return new Edited(content, $"Changed the steps by hand{desk.Where(PieceId)}", PieceId);
    }
}
