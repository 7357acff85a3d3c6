import type { TuckPiece, TuckView } from '../../api/client'

/** A piece on the table; what goes with another is ticked off by itself. */
export type OnTable = TuckPiece & { isWith: boolean }

/** What comes next, in words. */
export const nextWords: Record<TuckPiece['next'], string> = {
  print: 'to print',
  cut: 'printed, to cut',
  takeOutFirst: 'cut; take the old one out first, then tuck it in',
  tuckIn: 'to tuck in',
  done: 'tucked in',
}

/** All pieces of leaves, front before back, each with what goes with it. */
export const piecesOf = (leaves: TuckView['leaves']): OnTable[] =>
  leaves
    .flatMap((leaf) => leaf.faces)
    .flatMap((face) => face.pockets)
    .flatMap(({ piece }) =>
      piece ? [{ ...piece, isWith: false }, ...piece.with.map((p) => ({ ...p, isWith: true }))] : [],
    )

/** What a click ticks: the next step, or the last one taken back; nothing for what is not printed yet. */
export function tickOf(piece: TuckPiece): { step: 'cut' | 'tuckIn'; done: boolean } | null {
  switch (piece.next) {
    case 'cut':
      return { step: 'cut', done: true }
    case 'tuckIn':
    case 'takeOutFirst':
      return { step: 'tuckIn', done: true }
    case 'done':
      return { step: 'tuckIn', done: false }
    default:
      return null
  }
}
