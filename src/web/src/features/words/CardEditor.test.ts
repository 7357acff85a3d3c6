import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { PieceView, UnitView } from '../../api/client'
import CardEditor from './CardEditor.vue'

const POST = vi.fn()
vi.mock('../../api/client', async (original) => ({
  ...(await original<typeof import('../../api/client')>()),
  api: { POST: (...args: unknown[]) => POST(...args) },
}))
vi.mock('./queries', () => ({
  useAlbumWords: () => ({
    data: ref({
      styles: [{ key: 'plain-sans', name: 'Plain', family: 'Sprig', kinds: ['journaling'], offered: true }],
    }),
  }),
}))

const card = (words: string): PieceView => ({
  id: 'c1',
  kind: 'card',
  cardKind: 'journaling',
  title: 'Card',
  photo: null,
  framing: null,
  crop: null,
  words,
  styleKey: 'plain-sans',
  fit: { sizePt: 12, lines: 1, linesLeft: 9, wordCount: 1, wordsOver: 0, verdict: 'Fits at 12 pt' },
  faceUrl: '/face',
  warning: null,
  takesPicture: false,
  isPart: false,
})

const week = {
  id: 'w',
  albumId: 'a',
  days: [{ day: '2026-05-04', label: 'Mon 4 May' }],
  photos: [],
} as unknown as UnitView
const written = vi.fn()
const editor = (words = 'Rain') =>
  mount(CardEditor, {
    props: { unit: week, piece: card(words), onWrite: written },
    global: { plugins: [createPinia()] },
  })

beforeEach(() => {
  vi.useFakeTimers()
  POST.mockReset()
  written.mockReset()
  POST.mockImplementation((_path: string, { body }: { body: { words: string } }) =>
    Promise.resolve({
      data: {
        fit: { wordsOver: 3, verdict: `3 words too many of “${body.words}”` },
        picture: 'data:,',
        flowsOn: null,
        joins: [],
        remedies: [
          {
            kind: 'tightenLeading',
            label: 'Tighten the lines',
            gain: 'all words fit at 8 pt',
            words: body.words,
            setting: { leading: 1.1 },
          },
        ],
      },
      response: { ok: true },
    }),
  )
})
afterEach(() => vi.useRealTimers())

describe('the card editor', () => {
  it('asks for the fit while somebody types, once for a burst of keys', async () => {
    const wrapper = editor()
    for (const words of ['Rain a', 'Rain al', 'Rain all']) await wrapper.find('textarea').setValue(words)
    vi.advanceTimersByTime(130)
    await flushPromises()
    expect(POST).toHaveBeenCalledTimes(1)
    expect(wrapper.find('[data-testid=fit]').text()).toContain('3 words too many of “Rain all”')
  })

  it('saves after a pause, and at once when it is left', async () => {
    const wrapper = editor()
    await wrapper.find('textarea').setValue('Rain all day')
    expect(written).not.toHaveBeenCalled()
    vi.advanceTimersByTime(900)
    expect(written).toHaveBeenLastCalledWith('c1', 'Rain all day', 'plain-sans', null)

    const left = editor()
    await left.find('textarea').setValue('Sun')
    left.unmount()
    expect(written).toHaveBeenLastCalledWith('c1', 'Sun', 'plain-sans', null)
  })

  it('offers what would help and takes it with one click', async () => {
    const wrapper = editor()
    await wrapper.find('textarea').setValue('Rain all day')
    vi.advanceTimersByTime(130)
    await flushPromises()
    expect(wrapper.text()).toContain('all words fit at 8 pt')
    await wrapper
      .findAll('button')
      .find((b) => b.text() === 'Tighten the lines')!
      .trigger('click')
    expect(written).toHaveBeenLastCalledWith('c1', 'Rain all day', 'plain-sans', { leading: 1.1 })
  })

  it('saves nothing when nothing was changed', async () => {
    const wrapper = editor()
    await wrapper.find('textarea').trigger('blur')
    expect(written).not.toHaveBeenCalled()
  })

  it('shows what an undo brought back, but never over words that are being written', async () => {
    const wrapper = editor()
    await wrapper.setProps({ piece: card('Before') })
    expect(wrapper.find('textarea').element.value).toBe('Before')
    await wrapper.find('textarea').setValue('Being written')
    await wrapper.setProps({ piece: card('From elsewhere') })
    expect(wrapper.find('textarea').element.value).toBe('Being written')
  })
})
