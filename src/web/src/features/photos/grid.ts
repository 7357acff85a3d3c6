import type { PhotoView } from '../../api/client'

/** Heights in CSS pixels; the style of the grid has the same. */
export const dayHeight = 34
export const rowHeight = 150
const cellWidth = 128

export type GridRow =
  { kind: 'day'; key: string; label: string } | { kind: 'photos'; key: string; photos: PhotoView[]; first: number }

/** How many pictures stand side by side in a width. */
export const cells = (width: number) => Math.max(2, Math.floor(width / cellWidth))

/** How high a row is. */
export const heightOf = (row: GridRow) => (row.kind === 'day' ? dayHeight : rowHeight)

/** Rows of pictures under headings. A heading stands wherever it changes. */
export function rowsOf(photos: PhotoView[], columns: number, headingOf: (photo: PhotoView) => string): GridRow[] {
  const rows: GridRow[] = []
  let i = 0
  while (i < photos.length) {
    const heading = headingOf(photos[i]!)
    let end = i
    while (end < photos.length && headingOf(photos[end]!) === heading) end++
    rows.push({
      kind: 'day',
      key: `heading-${heading}-${i}`,
      label: `${heading} · ${end - i}`,
    })
    for (let at = i; at < end; at += columns) {
      const slice = photos.slice(at, Math.min(at + columns, end))
      rows.push({ kind: 'photos', key: slice[0]!.id, photos: slice, first: at })
    }
    i = end
  }
  return rows
}
