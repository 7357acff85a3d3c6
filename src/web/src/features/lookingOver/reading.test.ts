import { expect, it } from 'vitest'
import type { AlbumPage } from '../../api/client'
import { leavesOf, openingsOf, sheetAt } from './reading'

const page = (opening: number, leafId: string, side: 'front' | 'back') => ({ opening, leafId, side }) as AlbumPage
/** A front alone at first, then the back of each leaf beside the front of the next. */
const pages = [
  page(1, 'a', 'front'),
  page(2, 'a', 'back'),
  page(2, 'b', 'front'),
  page(3, 'b', 'back'),
  page(3, 'c', 'front'),
]

it('lays a back at the left and the front of the next leaf at the right', () => {
  const openings = openingsOf(pages)
  expect(openings.map((o) => [o.left?.leafId, o.right?.leafId])).toEqual([
    [undefined, 'a'],
    ['a', 'b'],
    ['b', 'c'],
  ])
})

it('shows both sides of a leaf beside each other, and only of leaves asked for', () => {
  const leaves = leavesOf(pages, new Set(['b', 'c']))
  expect(leaves.map((l) => [l.left?.side, l.right?.side])).toEqual([
    ['front', 'back'],
    ['front', undefined],
  ])
  expect(sheetAt(leaves, page(3, 'c', 'front'))).toBe(1)
  expect(sheetAt(leaves, page(1, 'a', 'front'))).toBe(-1)
})
