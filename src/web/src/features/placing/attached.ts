import type { PieceView, UnitView } from '../../api/client'
import type { Edge } from './finish'

export type AttachmentKind = NonNullable<PieceView['attachment']>['kind']

/** How a piece can go with another one, as people name it. */
export const attachments: { kind: AttachmentKind; name: string; edge: boolean }[] = [
  { kind: 'flip', name: 'Flip over it', edge: true },
  { kind: 'behind', name: 'Behind it in the pocket', edge: false },
  { kind: 'tag', name: 'Tag with a pull', edge: true },
  { kind: 'sleeve', name: 'Sleeve around it', edge: false },
  { kind: 'back', name: 'On its back', edge: false },
]

export const attachmentNames: Record<AttachmentKind, string> = {
  flip: 'Flip',
  behind: 'Behind it',
  tag: 'Tag',
  sleeve: 'Sleeve',
  back: 'Back',
  stuckOn: 'Label',
}

export const hinges: { edge: Edge; name: string }[] = [
  { edge: 'top', name: 'top edge' },
  { edge: 'left', name: 'left edge' },
  { edge: 'right', name: 'right edge' },
  { edge: 'bottom', name: 'bottom edge' },
]

/** A piece and all that go with it. */
export const withAttached = (piece: PieceView): PieceView[] => [piece, ...(piece.attached ?? []).flatMap(withAttached)]

/** Every piece of a unit that is on the screen. */
export const allPieces = (unit: UnitView) =>
  [...unit.faces.flatMap((f) => f.pockets).map((p) => p.piece), ...unit.looseCards]
    .filter((p): p is PieceView => !!p)
    .flatMap(withAttached)

/** Pictures that lie nowhere yet. */
export function loosePhotos(unit: UnitView) {
  const placed = new Set(
    allPieces(unit).flatMap((p) => [
      p.photo?.id,
      p.boughtCard ? p.pictureId : null,
      p.boughtCard?.picturePhotoId,
      ...(p.collage?.cells.map((c) => c.photoId) ?? []),
      ...(p.composition ? [p.composition.groundPhotoId, ...p.composition.shapes.map((s) => s.photoId)] : []),
    ]),
  )
  return unit.photos.filter((p) => !placed.has(p.id))
}
