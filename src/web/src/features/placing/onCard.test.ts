import { expect, it } from 'vitest'
import { keptAt, placeOf } from './onCard'

const card = {
  widthMm: 76.2,
  heightMm: 101.6,
  keepXMm: 10,
  keepYMm: 0,
  mostXMm: 25.4,
  mostYMm: 50.8,
  words: null,
  picture: null,
}

it('writes what is drawn in millimetres of the kept part', () => {
  expect(placeOf({ x: 0.5, y: 0.25, width: 0.5, height: 0.5 }, card)).toEqual({
    x: '38.1 mm',
    y: '25.4 mm',
    width: '38.1 mm',
    height: '50.8 mm',
  })
})

it('moves the kept part and never over the edge of the card', () => {
  expect(keptAt(card, 0.1, 0.1)).toEqual(['17.6 mm', '10.2 mm'])
  expect(keptAt(card, 1, -1)).toEqual(['25.4 mm', '0.0 mm'])
})
