import { expect, it } from 'vitest'
import type { TuckPiece, TuckView } from '../../api/client'
import { piecesOf, tickOf } from './tuck'

const piece = (number: string, next: TuckPiece['next'], others: TuckPiece[] = []) =>
  ({ number, next, with: others }) as unknown as TuckPiece

it('lists front before back, each piece with what goes with it', () => {
  const leaves = [
    {
      faces: [
        { pockets: [{ piece: piece('L1', 'cut', [piece('L1 flip', 'cut')]) }, { piece: null }] },
        { pockets: [{ piece: piece('R1', 'done') }] },
      ],
    },
  ] as unknown as TuckView['leaves']
  expect(piecesOf(leaves).map((p) => [p.number, p.isWith])).toEqual([
    ['L1', false],
    ['L1 flip', true],
    ['R1', false],
  ])
})

it('ticks the next step, takes the last one back, and waits for the printer', () => {
  expect(tickOf(piece('a', 'cut'))).toEqual({ step: 'cut', done: true })
  expect(tickOf(piece('a', 'takeOutFirst'))).toEqual({ step: 'tuckIn', done: true })
  expect(tickOf(piece('a', 'done'))).toEqual({ step: 'tuckIn', done: false })
  expect(tickOf(piece('a', 'print'))).toBeNull()
})
