import { type CardSetting, type PieceView, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editStories } from '../../shared/edits'
import type { Edit } from '../placing/unit'

/** What can be done with a card, wherever it is in hand. */
export function useCardEdits(unit: () => UnitView, edit: (change: Edit) => Promise<unknown>) {
  const { act } = useAct(() => unit().albumId)

  const flow = (piece: PieceView) =>
    act(() => {
      const { albumId, id: unitId, revision } = unit()
      return editStories(albumId, { kind: 'flowOn', unitId, revision, pieceId: piece.id })
    })

  return (piece: PieceView) => ({
    write: (pieceId: string, words: string, styleKey: string, setting: CardSetting | null) =>
      edit({ kind: 'writeCard', pieceId, words, styleKey, setting }),
    furnish: (day: string | null, photoId: string | null) =>
      edit({ kind: 'furnishCard', pieceId: piece.id, day, photoId }),
    showSmall: (at: string, photoId: string | null) =>
      edit({ kind: 'showSmallPicture', pieceId: piece.id, at, photoId }),
    showDays: () => edit({ kind: 'showDaysPictures', pieceId: piece.id }),
    tint: (fromPictures: boolean, photoId: string | null) => edit({ kind: 'tintCards', fromPictures, photoId }),
    join: (otherId: string) => edit({ kind: 'joinCards', pieceId: piece.id, otherId }),
    flow: () => flow(piece),
    discard: () => edit({ kind: 'discardPiece', pieceId: piece.id }),
  })
}
