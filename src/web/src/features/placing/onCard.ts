import type { BoxView, PlacesOnCard, WrittenBoughtCard } from '../../api/client'

export type WrittenPlace = NonNullable<WrittenBoughtCard['wordsPlace']>

/** A tenth of a millimetre is finer than a hand draws. */
const mm = (value: number) => `${value.toFixed(1)} mm`

/** A place drawn on the kept part, as it is written. */
export const placeOf = (box: BoxView, card: PlacesOnCard): WrittenPlace => ({
  x: mm(box.x * card.widthMm),
  y: mm(box.y * card.heightMm),
  width: mm(box.width * card.widthMm),
  height: mm(box.height * card.heightMm),
})

/** Where the kept part begins when it is moved by shares of itself; it never leaves the card. */
export function keptAt(card: PlacesOnCard, dx: number, dy: number): [x: string, y: string] {
  const within = (at: number, most: number) => mm(Math.min(Math.max(at, 0), most))
  return [
    within(card.keepXMm + dx * card.widthMm, card.mostXMm),
    within(card.keepYMm + dy * card.heightMm, card.mostYMm),
  ]
}
