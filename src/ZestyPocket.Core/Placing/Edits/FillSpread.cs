using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// Fills the empty pockets: the title card first, then written cards where their words fit best, collages, pictures
/// that are wanted in one size, and the other pictures in the rest.
/// </summary>
public sealed record FillSpread : ContentEdit
{
    public override string Label() => "Fill the spread";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var filling = new Filling(desk, tools);
        if (filling.Free.Count == 0)
        {
            throw new RuleException(
                "Every pocket of this spread is taken: there is nothing to fill. Take a piece out first."
            );
        }

        var (cards, collages) = (filling.Cards(), filling.Collages());
        var photos = filling.WishedPhotos() + filling.OtherPhotos();
        if (cards + collages + photos == 0)
        {
            throw new RuleException(
                "There is nothing loose to fill the spread with: gather photos or add a card first."
            );
        }

        var left = desk.Photos.Keys.Count(id => !filling.Content.PhotosPlaced.Contains(id));
        var over = left > 0 ? $"; {left} found no pocket" : string.Empty;
        var prints = collages == 0 ? string.Empty : $", {NumberWords.Counted(collages, "collage")}";
        return new Edited(
            filling.Content,
            $"Filled the spread with {NumberWords.Counted(photos, "photo")}{prints} and "
                + $"{NumberWords.Counted(cards, "card")}{over}"
        );
    }

    private sealed class Filling(UnitDesk desk, EditTools tools)
    {
        public UnitContent Content { get; private set; } = desk.Content;

        public List<OpenPocket> Free { get; } =
        [
            .. desk
                .Pages.Pockets.Where(p => desk.Content.At(p.Place) is null && !desk.Content.LeftEmpty.Contains(p.Place))
                .Select(p => new OpenPocket(p.Place, p.Face.Protector.CutSize(p.Pocket))
                {
                    Nominal = p.Pocket.Nominal,
                }),
        ];

        public int Cards() =>
            Content
                .Loose.OfType<Card>()
                .OrderBy(c => CardStyle.RoleOf(c.Kind) == StyleRole.Title ? 0 : 1)
                .ToList()
                .Count(card => PocketFor(card) is { } pocket && Lay(card.Id, pocket));

        public int Collages() =>
            Content
                .Loose.OfType<Collage>()
                .ToList()
                .Count(collage =>
                    First(Free.Where(p => collage.Body.FitsIn(p.Nominal)).OrderBy(p => p.Nominal.SquareInches))
                        is { } pocket
                    && Lay(collage.Id, pocket)
                );

        /// <summary>They come before the others, which leave them the only pockets they want.</summary>
        public int WishedPhotos() =>
            Content
                .Wishes.Where(w => desk.Photos.ContainsKey(w.PhotoId) && !Content.PhotosPlaced.Contains(w.PhotoId))
                .ToList()
                .Count(wish =>
                    First(Free.Where(p => p.Nominal == wish.Size)) is { } pocket && LayPhoto(wish.PhotoId, pocket.Place)
                );

        public int OtherPhotos()
        {
            var loose = desk
                .Photos.Values.Where(p => !Content.PhotosPlaced.Contains(p.Id) && Content.WishFor(p.Id) is null)
                .Select(p => p.Photo)
                .ToList();
            return SpreadFilling.Propose(Free, loose).ToList().Count(c => LayPhoto(c.PhotoId, c.Place));
        }

        private static OpenPocket? First(IEnumerable<OpenPocket> pockets) =>
            pockets.Select(p => (OpenPocket?)p).FirstOrDefault();

        private bool Lay(Guid pieceId, OpenPocket pocket)
        {
            Content = Content.Put(pieceId, pocket.Place).Lock(pocket.Place, locked: false);
            return Free.Remove(pocket);
        }

        private bool LayPhoto(Guid photoId, PocketPlace place)
        {
            Content = Content
                .PutPhoto(photoId, place, tools.NewId(), desk.Photos[photoId].Around)
                .Lock(place, locked: false);
            Free.RemoveAll(p => p.Place == place);
            return true;
        }

        private OpenPocket? PocketFor(Card card)
        {
            if (Free.Count == 0)
            {
                return null;
            }

            if (CardStyle.RoleOf(card.Kind) == StyleRole.Title)
            {
                return Free[0];
            }

            if (card.Kind == CardKind.Filler)
            {
                return Free[^1];
            }

            // The smallest pocket that holds the words; if none does, the largest.
            var (style, heading) = (desk.StyleOf(card), ComputedCards.Heading(card.Kind) is not null);
            return Free.OrderBy(p => p.Cut.SquareInches)
                .Where(p => CardComposer.Fit(card.Words, style, p.Cut, tools.Shaper, heading).Fits)
                .Concat(Free.OrderByDescending(p => p.Cut.SquareInches))
                .First();
        }
    }
}
