namespace ZestyPocket.Core.Placing;

/// <summary>Pieces that go with others: how they come to them and what becomes of them.</summary>
public static class Attachments
{
    /// <summary>Longest chain of pieces that go with each other: the back of a flip on a piece.</summary>
    public const int Deepest = 2;

    /// <summary>Most pieces that go with one piece.</summary>
    public const int Most = 12;

    /// <summary>What lies over a piece when everything is closed, the lowest first: labels, a sleeve, flips.</summary>
    public static IEnumerable<Piece> Over(this UnitContent content, Guid pieceId)
    {
        ArgumentNullException.ThrowIfNull(content);
        return content
            .AttachedTo(pieceId)
            .Where(p => p.Attachment!.Kind is AttachmentKind.StuckOn or AttachmentKind.Sleeve or AttachmentKind.Flip)
            .OrderBy(p =>
                p.Attachment!.Kind switch
                {
                    AttachmentKind.StuckOn => 0,
                    AttachmentKind.Sleeve => 1,
                    _ => 2,
                }
            );
    }

    /// <summary>
    /// Lets a piece go with another one. Throws <see cref="RuleException"/> when the two do not go together.
    /// </summary>
    public static UnitContent Attach(this UnitContent content, Piece piece, Attachment attachment)
    {
        ArgumentNullException.ThrowIfNull(content);
        ArgumentNullException.ThrowIfNull(piece);
        ArgumentNullException.ThrowIfNull(attachment);
        var to =
            content.Find(attachment.Checked().To)
            ?? throw new RuleException(
                "The piece it should go with is no longer here. Nothing was changed: look at the page again."
            );
        Require(content, piece, to, attachment);
        var known = content.Find(piece.Id);
        var attached = piece with { Attachment = attachment };
        return content with
        {
            Pieces = known is null ? content.Pieces.Add(attached) : content.Pieces.Replace(known, attached),
            Placements = content.Placements.RemoveAll(p => p.PieceId == piece.Id),
        };
    }

    /// <summary>Takes a piece off the one it goes with: a card goes to the tray, a print is given up.</summary>
    public static UnitContent Detach(this UnitContent content, Guid pieceId)
    {
        ArgumentNullException.ThrowIfNull(content);
        return content.Find(pieceId) switch
        {
            PhotoPrint { Attachment: not null } print => content.Without(new HashSet<Guid> { print.Id }),
            { Attachment: not null } piece => content with
            {
                Pieces = content.Pieces.Replace(piece, piece with { Attachment = null }),
            },
            _ => throw new RuleException("That piece goes with no other one. Nothing was changed."),
        };
    }

    /// <summary>
    /// Without some pieces. What went with them goes to the tray; prints among that are given up, so that their
    /// pictures are loose again.
    /// </summary>
    internal static UnitContent Without(this UnitContent content, IReadOnlySet<Guid> gone)
    {
        var all = gone.ToHashSet();
        foreach (
            var print in content.Pieces.OfType<PhotoPrint>().Where(p => p.Attachment is { } a && gone.Contains(a.To))
        )
        {
            all.Add(print.Id);
        }

        return content with
        {
            Pieces =
            [
                .. content
                    .Pieces.Where(p => !all.Contains(p.Id))
                    .Select(p => p.Attachment is { } a && all.Contains(a.To) ? p with { Attachment = null } : p),
            ],
            Placements = content.Placements.RemoveAll(p => all.Contains(p.PieceId)),
        };
    }

    private static void Require(UnitContent content, Piece piece, Piece to, Attachment attachment)
    {
        var reason =
            piece.Id == to.Id ? "A piece cannot go with itself"
            : piece is PhotoPrint { SpanId: not null } ? "A picture over several pockets stays in them"
            : piece is Keepsake { InEnvelope: true } ? "That keepsake lies in the envelope: take it out first"
            : piece is Keepsake && attachment.Kind != AttachmentKind.Behind ? "A keepsake can only lie behind a piece"
            : piece is WordStrips != (attachment.Kind == AttachmentKind.StuckOn) ? "Only labels are stuck on a piece"
            : to is WordStrips ? "Nothing goes with a label"
            : to is Keepsake && attachment.Kind == AttachmentKind.Back ? "A keepsake is not printed"
            : to.Attachment is not null && attachment.Kind != AttachmentKind.Back
                ? "That piece goes with another one itself: only its back can be added"
            : to.Attachment is { Kind: AttachmentKind.Back or AttachmentKind.Sleeve }
                ? "That piece has no back of its own"
            : content
                .AttachedTo(piece.Id)
                .Any(p => attachment.Kind == AttachmentKind.Back || p.Attachment!.Kind != AttachmentKind.Back)
                ? "Other pieces go with this one: take them off first"
            : content
                .AttachedTo(to.Id)
                .Any(p =>
                    p.Id != piece.Id
                    && p.Attachment!.Kind == attachment.Kind
                    && (
                        attachment.Kind is AttachmentKind.Back or AttachmentKind.Sleeve
                        || (attachment.Kind == AttachmentKind.Flip && p.Attachment.Edge == attachment.Edge)
                    )
                )
                ? attachment.Kind == AttachmentKind.Flip ? "A flip hangs on that edge already"
                    : "It has one already"
            : content.AttachedTo(to.Id).Count(p => p.Id != piece.Id) >= Most ? $"At most {Most} pieces go with one"
            : null;
        if (reason is not null)
        {
            throw new RuleException($"{reason}. Nothing was changed.");
        }
    }
}
