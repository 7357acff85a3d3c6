import type { PieceView } from '../api/client'

export type Stock = NonNullable<PieceView['stock']>

/** What pieces are printed on, as people name it. */
export const stocks: { stock: Stock; name: string }[] = [
  { stock: 'photoPaper', name: 'photo paper' },
  { stock: 'whiteCard', name: 'white card' },
  { stock: 'patternedPaper', name: 'patterned paper' },
  { stock: 'vellum', name: 'vellum' },
  { stock: 'clearFilm', name: 'clear film' },
  { stock: 'kraft', name: 'kraft card' },
  { stock: 'label', name: 'label sheet' },
]

export const stockName = (stock: Stock) => stocks.find((s) => s.stock === stock)?.name ?? stock
