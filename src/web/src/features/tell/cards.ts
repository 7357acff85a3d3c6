import { answer, api, type CardSetting, type PieceView, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import type { Edit } from '../place/unit'

/** What can be done with a card, wherever it is in hand. */
export function useCardEdits(unit: () => UnitView, edit: (change: Edit) => Promise<unknown>) {
  const { act } = useAct(() => unit().albumId)

  const flow = (piece: PieceView) =>
    act(() =>
      answer(
        api.POST('/api/units/{id}/pieces/{pieceId}/flow', {
          params: { path: { id: unit().id, pieceId: piece.id } },
          body: { revision: unit().revision },
        }),
      ),
    )

  return (piece: PieceView) => ({
    write: (pieceId: string, words: string, styleKey: string, setting: CardSetting | null) =>
      edit({ kind: 'writeCard', pieceId, words, styleKey, setting }),
    furnish: (day: string | null, photoId: string | null) =>
      edit({ kind: 'furnishCard', pieceId: piece.id, day, photoId }),
    join: (otherId: string) => edit({ kind: 'joinCards', pieceId: piece.id, otherId }),
    flow: () => flow(piece),
    discard: () => edit({ kind: 'discardPiece', pieceId: piece.id }),
  })
}
