import { describe, expect, it } from 'vitest'
import type { PhotoFilter, PhotoPage, PhotoView } from '../../api/client'
import { onlyMarks } from './edits'
import { marked } from './queries'

const photo = (id: string, verdict: PhotoView['verdict'] = 'undecided', favourite = 0) =>
  ({ id, verdict, favourite }) as PhotoView
const list = (...pages: PhotoView[][]) => ({
  pages: pages.map((photos) => ({ photos, next: null }) as PhotoPage),
  pageParams: pages.map(() => ''),
})
const ids = (of: ReturnType<typeof marked>) => of?.pages.map((page) => page.photos.map((p) => p.id))

describe('a picture that is marked', () => {
  it('changes in its place of a long list, and the list is not read again', () => {
    const long = list(
      Array.from({ length: 5_000 }, (_, i) => photo(`a${i}`)),
      Array.from({ length: 5_000 }, (_, i) => photo(`b${i}`)),
    )
    const fresh = marked(long, {}, [photo('b4999', 'keep', 2)])!
    expect(fresh.pages[1]!.photos[4_999]).toEqual(photo('b4999', 'keep', 2))
    expect(fresh.pages[0]!.photos[0]).toBe(long.pages[0]!.photos[0])
  })

  it('leaves the list when it is left out, and a list it comes to is read again', () => {
    const all = list([photo('a'), photo('b')])
    expect(ids(marked(all, {}, [photo('a', 'leave')]))).toEqual([['b']])
    expect(marked(list([]), { Scope: 'leftOut' } as PhotoFilter, [photo('a', 'leave')])).toBeNull()
    expect(marked(list([photo('b')]), {}, [photo('a', 'keep')])).toBeNull()
  })

  it('stays in a list by stars or verdict only while it has them', () => {
    const loved = list([photo('a', 'keep', 3)])
    expect(ids(marked(loved, { Favourite: 2 } as PhotoFilter, [photo('a', 'keep', 1)]))).toEqual([[]])
    expect(ids(marked(loved, { Verdict: 'keep' } as PhotoFilter, [photo('a', 'maybe', 3)]))).toEqual([[]])
  })

  it('is nothing but marked when verdict or stars are all that changes', () => {
    expect(onlyMarks({ kind: 'judgePhoto', verdict: 'keep' })).toBe(true)
    expect(onlyMarks({ kind: 'datePhoto', day: '2026-05-04' })).toBe(false)
  })
})
