import type { PhotoView } from '../../api/client'

/** Heights in CSS pixels; the style of the grid has the same. */
export const dayHeight = 34
export const rowHeight = 150
const cellWidth = 128

export type GridRow =
  | { kind: 'day'; key: string; label: string; top: number; bottom: number }
  | { kind: 'photos'; key: string; photos: PhotoView[]; first: number; top: number; bottom: number }

/** How many pictures stand side by side in a width. */
export const cells = (width: number) => Math.max(2, Math.floor(width / cellWidth))

/** Rows of pictures under headings, with where each begins and ends. A heading stands wherever it changes. */
export function rowsOf(photos: PhotoView[], columns: number, headingOf: (photo: PhotoView) => string): GridRow[] {
  const rows: GridRow[] = []
  let top = 0
  let i = 0
  while (i < photos.length) {
    const heading = headingOf(photos[i]!)
    let end = i
    while (end < photos.length && headingOf(photos[end]!) === heading) end++
    rows.push({
      kind: 'day',
      key: `heading-${heading}-${i}`,
      label: `${heading} · ${end - i}`,
      top,
      bottom: top + dayHeight,
    })
    top += dayHeight
    for (let at = i; at < end; at += columns) {
      const slice = photos.slice(at, Math.min(at + columns, end))
      rows.push({ kind: 'photos', key: slice[0]!.id, photos: slice, first: at, top, bottom: top + rowHeight })
      top += rowHeight
    }
    i = end
  }
  return rows
}

/** The rows within a screenful of what is seen: the rest of ten thousand pictures is not in the page at all. */
export function visible(rows: GridRow[], top: number, height: number): GridRow[] {
  const [from, to] = [top - height, top + 2 * height]
  let low = 0
  let high = rows.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (rows[middle]!.bottom < from) low = middle + 1
    else high = middle
  }
  const shown: GridRow[] = []
  for (let i = low; i < rows.length && rows[i]!.top <= to; i++) shown.push(rows[i]!)
  return shown
}
