import { describe, expect, it } from 'vitest'
import type { PhotoView } from '../../api/client'
import { photoWords } from './edits'
import { cells, dayHeight, heightOf, rowHeight, rowsOf } from './grid'

const photo = (i: number, day: string | null): PhotoView => ({
  id: `p${i}`,
  revision: 0,
  fileName: `${i}.jpg`,
  picture: `/api/photos/p${i}/picture?v=1&side=`,
  width: 600,
  height: 400,
  day,
  dayLabel: day ? `day ${day}` : null,
  time: null,
  camera: null,
  unitId: null,
  verdict: 'undecided',
  favourite: 0,
  kind: 'photo',
  guessedDay: null,
  groupId: null,
  suggestedBest: false,
  focusX: 0.5,
  focusY: 0.5,
})

describe('the grid', () => {
  it('puts each stretch under its own heading, row by row', () => {
    const photos = [1, 2, 3, 4, 5].map((i) => photo(i, i < 4 ? '2026-06-06' : '2026-06-07'))
    const byDay = (p: PhotoView) => p.dayLabel ?? 'No date'
    const rows = rowsOf([...photos, photo(6, null)], 2, byDay)
    expect(rows.map((r) => (r.kind === 'day' ? r.label : r.photos.length))).toEqual([
      'day 2026-06-06 · 3',
      2,
      1,
      'day 2026-06-07 · 2',
      2,
      'No date · 1',
      1,
    ])
    expect(rows.reduce((sum, row) => sum + heightOf(row), 0)).toBe(3 * dayHeight + 4 * rowHeight)
  })

  it('has two pictures side by side on the smallest phone', () => {
    expect([cells(200), cells(1200)]).toEqual([2, 9])
  })

  it('says of a picture what a screen reader needs', () => {
    const best = {
      ...photo(1, '2026-06-06'),
      verdict: 'keep' as const,
      favourite: 2,
      groupId: 'g',
      suggestedBest: true,
    }
    expect(photoWords(best)).toBe('1.jpg, day 2026-06-06, keep, 2 stars, suggested best of its group')
    expect(photoWords(photo(2, null))).toBe('2.jpg, no date')
  })
})
