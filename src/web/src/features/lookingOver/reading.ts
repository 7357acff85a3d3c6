import type { AlbumPage } from '../../api/client'

/** What lies before the reader at once. */
export interface Sheet {
  left?: AlbumPage
  right?: AlbumPage
  pages: AlbumPage[]
}

const sheet = (left: AlbumPage | undefined, right: AlbumPage | undefined): Sheet => ({
  left,
  right,
  pages: [left, right].filter((p): p is AlbumPage => !!p),
})

/** Pages that lie open together: a back at the left, a front at the right. */
export function openingsOf(pages: AlbumPage[]): Sheet[] {
  const numbers = [...new Set(pages.map((p) => p.opening))]
  return numbers.map((n) => {
    const both = pages.filter((p) => p.opening === n)
    return sheet(
      both.find((p) => p.side === 'back'),
      both.find((p) => p.side === 'front'),
    )
  })
}

/** Leaves with both their sides, the front first, of which one is asked for. */
export function leavesOf(pages: AlbumPage[], asked: Set<string>): Sheet[] {
  const ids = [...new Set(pages.map((p) => p.leafId))].filter((id) => asked.has(id))
  return ids.map((id) => {
    const both = pages.filter((p) => p.leafId === id)
    return sheet(
      both.find((p) => p.side === 'front'),
      both.find((p) => p.side === 'back'),
    )
  })
}

/** Where a page lies. */
export const sheetAt = (sheets: Sheet[], page: AlbumPage) =>
  sheets.findIndex((s) => s.pages.some((p) => p.leafId === page.leafId && p.side === page.side))
