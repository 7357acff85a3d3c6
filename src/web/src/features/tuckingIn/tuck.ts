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

/** How many things are cut for some pieces: each with its mats and other parts that were printed by themselves. */
export const cutsOf = (pieces: OnTable[]) => pieces.reduce((sum, p) => sum + 1 + p.alsoCut.length, 0)

export interface SheetToCut {
  key: string
  name: string
  pieces: OnTable[]
}

/** Pieces that are to be cut, by the sheet they were printed on, in the order they came out of the printer. */
export function sheetsToCut(pieces: OnTable[]): SheetToCut[] {
  const known = pieces
    .filter((p) => p.next === 'cut' && p.sheet)
    .sort((a, b) => (a.printedAt ?? '').localeCompare(b.printedAt ?? '') || a.sheet!.number - b.sheet!.number)
  const prints = [...new Set(known.map((p) => p.sheet!.printId))]
  const sheets = new Map<string, SheetToCut>()
  for (const piece of known) {
    const { printId, number } = piece.sheet!
    const key = `${printId} ${number}`
    const of = prints.length > 1 ? ` of print ${prints.indexOf(printId) + 1}` : ''
    const sheet = sheets.get(key) ?? { key, name: `Sheet ${number}${of}`, pieces: [] }
    sheet.pieces.push(piece)
    sheets.set(key, sheet)
  }
  return [...sheets.values()]
}

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
