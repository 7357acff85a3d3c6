import { describe, expect, it } from 'vitest'
import type { PhotoView } from '../../api/client'
import { photoWords } from './edits'
import { cells, dayHeight, rowHeight, rowsOf, visible } from './grid'

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
  it('puts each stretch under its own heading, row by row without a gap', () => {
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
    for (let i = 1; i < rows.length; i++) expect(rows[i]!.top).toBe(rows[i - 1]!.bottom)
    expect(rows.at(-1)!.bottom).toBe(3 * dayHeight + 4 * rowHeight)
  })

  it('shows of ten thousand pictures only those near the screen, wherever it is scrolled', () => {
    const photos = Array.from({ length: 10_000 }, (_, i) =>
      photo(i, `2026-${String(1 + Math.floor(i / 900)).padStart(2, '0')}-01`),
    )
    const rows = rowsOf(photos, 8, (p) => p.day!)
    const full = rows.at(-1)!.bottom
    for (const top of [0, 5_000, full / 2, full - 600]) {
      const shown = visible(rows, top, 600)
      expect(shown.length).toBeLessThan(20)
      expect(shown[0]!.top).toBeLessThanOrEqual(Math.max(0, top))
      expect(shown.at(-1)!.bottom).toBeGreaterThanOrEqual(Math.min(full, top + 600))
    }
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
