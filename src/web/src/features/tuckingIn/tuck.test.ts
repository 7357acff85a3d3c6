import { expect, it } from 'vitest'
import type { TuckPiece, TuckView } from '../../api/client'
import { cutsOf, piecesOf, sheetsToCut, tickOf } from './tuck'

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

it('counts a mat with its picture: both are cut', () => {
  const matted = { ...piece('L1', 'cut'), alsoCut: ['L1 mat'], isWith: false }
  expect(cutsOf([matted, { ...piece('L2', 'cut'), alsoCut: [], isWith: false }])).toBe(3)
})

it('ticks the next step, takes the last one back, and waits for the printer', () => {
  expect(tickOf(piece('a', 'cut'))).toEqual({ step: 'cut', done: true })
  expect(tickOf(piece('a', 'takeOutFirst'))).toEqual({ step: 'tuckIn', done: true })
  expect(tickOf(piece('a', 'done'))).toEqual({ step: 'tuckIn', done: false })
  expect(tickOf(piece('a', 'print'))).toBeNull()
})

it('lists what is to be cut by sheet, earlier prints first, and leaves out what no sheet is known of', () => {
  const on = (number: string, printId: string, sheet: number, printedAt: string, next: TuckPiece['next'] = 'cut') => ({
    ...piece(number, next),
    isWith: false,
    sheet: { printId, number: sheet },
    printedAt,
  })
  const lab = { ...piece('L9', 'cut'), isWith: false, sheet: null, printedAt: '2026-05-04T10:00:00Z' }
  const pieces = [
    on('L1', 'b', 1, '2026-05-05T10:00:00Z'),
    on('L2', 'a', 2, '2026-05-04T10:00:00Z'),
    on('L3', 'a', 1, '2026-05-04T10:00:00Z'),
    on('L4', 'a', 1, '2026-05-04T10:00:00Z'),
    on('L5', 'a', 1, '2026-05-04T10:00:00Z', 'tuckIn'),
    lab,
  ]
  const named = (list: typeof pieces) => sheetsToCut(list).map((s) => [s.name, s.pieces.map((p) => p.number).join(' ')])
  expect(named(pieces)).toEqual([
    ['Sheet 1 of print 1', 'L3 L4'],
    ['Sheet 2 of print 1', 'L2'],
    ['Sheet 1 of print 2', 'L1'],
  ])
  expect(named(pieces.slice(1, 4)).map(([name]) => name)).toEqual(['Sheet 1', 'Sheet 2'])
})
