import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { CollageView, UnitView } from '../../api/client'
import CollageEditor from './CollageEditor.vue'

const unit = {
  photos: ['a', 'b', 'c'].map((id) => ({ id, fileName: `${id}.jpg`, picture: `/p/${id}/` })),
} as unknown as UnitView
const edit = vi.fn((change: { kind: string }) => Promise.resolve(change))
const stubs = { BButton: { template: '<button :type="$attrs.type ?? \'button\'"><slot /></button>' } }
beforeEach(() => edit.mockClear())

const collage: CollageView = {
  layout: '3x4 | (3x2 / 3x2)',
  gutter: '1/16 in',
  size: '6x4',
  cells: [
    { key: '1.1', photoId: 'a', words: '', x: 0, y: 0, width: 0.5, height: 1, lossPercent: 3 },
    { key: '1.2.1.1', photoId: 'b', words: '', x: 0.5, y: 0, width: 0.5, height: 0.5, lossPercent: 0 },
    { key: '1.2.2.1', photoId: null, words: 'Rain', x: 0.5, y: 0.5, width: 0.5, height: 0.5, lossPercent: 0 },
  ],
}

describe('a collage', () => {
  it('is made of the chosen pictures in the pocket in hand, in the size nearest to a 4x6', async () => {
    const place = { leafId: 'l', side: 'front' as const, pocketKey: '1.1' }
    const w = mount(CollageEditor, {
      props: { unit, edit, sizes: ['3x4', '6x4'], place },
      global: { stubs },
    })
    await w.findAll('input[type=checkbox]')[0]!.setValue(true)
    await w.findAll('input[type=checkbox]')[2]!.setValue(true)
    await w.get('form').trigger('submit')
    expect(edit).toHaveBeenCalledWith({
      kind: 'addCollage',
      collage: { size: '6x4', photoIds: ['a', 'c'], wordCells: 0, gutter: '1/16 in' },
      place,
    })
    expect(w.emitted('made')).toHaveLength(1)
  })

  it('keeps its words in their cells', async () => {
    const w = mount(CollageEditor, { props: { unit, edit, pieceId: 'k', collage, faceUrl: '/f' }, global: { stubs } })
    await w.get('textarea').setValue('Rain, then sun')
    await w.get('form').trigger('submit')
    const change = edit.mock.calls[0]![0] as unknown as {
      collage: { cells: { words: string; photoId: string | null }[] }
    }
    expect(change.collage.cells.map((c) => c.words)).toEqual(['', '', 'Rain, then sun'])
    expect(change.collage.cells.map((c) => c.photoId)).toEqual(['a', 'b', null])
  })

  it('is laid anew with further pictures', async () => {
    const w = mount(CollageEditor, { props: { unit, edit, pieceId: 'k', collage }, global: { stubs } })
    await w.findAll('input[type=checkbox]')[2]!.setValue(true)
    await w.findAll('form').at(-1)!.trigger('submit')
    expect(edit).toHaveBeenCalledWith({
      kind: 'changeCollage',
      pieceId: 'k',
      collage: { size: '6x4', photoIds: ['a', 'b', 'c'], wordCells: 1, gutter: '1/16 in' },
    })
  })
})
