import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { PieceView } from '../../api/client'
import PictureWords from './PictureWords.vue'

const POST = vi.fn()
vi.mock('../../api/client', async (original) => ({
  ...(await original<typeof import('../../api/client')>()),
  api: { POST: (...args: unknown[]) => POST(...args) },
}))

const caption = {
  words: 'First swim',
  face: 'display',
  sizePt: 14,
  x: 0.1,
  y: 0.1,
  width: 0.4,
  ink: '#2b2622',
  label: null,
}
const print = (words?: string): PieceView =>
  ({ id: 'p1', kind: 'photo', title: 'a.jpg', caption: words ? { ...caption, words } : null }) as unknown as PieceView
const edit = vi.fn(() => Promise.resolve({ done: 'Done' }))
const panel = (piece = print()) =>
  mount(PictureWords, {
    props: { unitId: 'w', piece, edit },
    global: {
      plugins: [createPinia()],
      stubs: { BButton: { template: '<button :type="$attrs.type ?? \'button\'"><slot /></button>' } },
    },
  })

beforeEach(() => {
  edit.mockClear()
  POST.mockReset()
  POST.mockImplementation((_: string, { body }: { body: { label: boolean } }) =>
    Promise.resolve({
      data: {
        caption: { ...caption, label: body.label ? '#ffffff' : null },
        contrast: body.label ? 15 : 3.1,
        wantsLabel: !body.label,
        says: body.label ? '14 pt on a label, 15.0 to 1.' : 'only 3.1 to 1: a label would help.',
        picture: 'data:,',
      },
      response: { ok: true },
    }),
  )
})

describe('words on a picture', () => {
  it('are found a place, offered a label when they are hard to read, and put on', async () => {
    const view = panel()
    await view.get('input[id^=caption]').setValue('First swim')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(view.get('[data-testid=caption-says]').text()).toContain('! only 3.1 to 1')
    await view.get('input[type=checkbox]').setValue(true)
    await flushPromises()
    expect(view.get('[data-testid=caption-says]').text()).toBe('14 pt on a label, 15.0 to 1.')
    await view
      .findAll('button')
      .find((b) => b.text() === 'Add to photo')!
      .trigger('click')
    await flushPromises()
    expect(edit).toHaveBeenCalledWith({
      kind: 'captionPhoto',
      pieceId: 'p1',
      caption: { ...caption, label: '#ffffff' },
    })
  })

  it('ask nothing for no words, and come off again', async () => {
    const empty = panel()
    await empty.get('form').trigger('submit')
    expect(POST).not.toHaveBeenCalled()
    const view = panel(print('First swim'))
    await view
      .findAll('button')
      .find((b) => b.text() === 'Delete words')!
      .trigger('click')
    expect(edit).toHaveBeenCalledWith({ kind: 'captionPhoto', pieceId: 'p1', caption: null })
  })
})
