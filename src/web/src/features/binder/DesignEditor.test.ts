import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { DraftView } from '../../api/client'
import DesignEditor from './DesignEditor.vue'

const POST = vi.fn()
vi.mock('../../api/client', async (original) => ({
  ...(await original<typeof import('../../api/client')>()),
  api: { POST: (...args: unknown[]) => POST(...args) },
}))

const inch = 914_400
const draft = (notation: string, keys: string[]): DraftView => ({
  notation,
  name: `${keys.length} pockets`,
  body: '9x12',
  bodyWidth: 9 * inch,
  bodyHeight: 12 * inch,
  pockets: keys.map((key, i) => ({
    key,
    size: '9x4',
    bought: false,
    x: 0,
    y: i * 4 * inch,
    width: 9 * inch,
    height: 4 * inch,
    splits: [
      { label: '3x4 | 6x4', upright: true, parts: ['3 in', '6 in'], bought: true },
      { label: '9x2 / 9x2', upright: false, parts: ['2 in', '2 in'], bought: false },
    ],
  })),
})
const editor = () =>
  mount(DesignEditor, {
    props: { start: '9x4 / 9x4' },
    global: { stubs: { BButton: { template: '<button :type="$attrs.type ?? \'button\'"><slot /></button>' } } },
  })
const button = (w: ReturnType<typeof editor>, text: string) =>
  w.findAll('button').find((b) => b.text().startsWith(text))!

beforeEach(() => {
  POST.mockReset()
  POST.mockResolvedValue({ data: draft('9x4 / 9x4', ['1.1', '2.1']), response: { ok: true } })
})

describe('drawing a page', () => {
  it('parts the chosen pocket as the server proposes', async () => {
    const w = editor()
    await flushPromises()
    await w.findAll('.cell')[1]!.trigger('click')
    POST.mockResolvedValue({ data: draft('9x4 / 3x4 | 6x4', ['1.1', '2.1', '2.2']), response: { ok: true } })
    await button(w, '3x4 | 6x4').trigger('click')
    await flushPromises()
    expect(POST).toHaveBeenLastCalledWith('/api/designs/draft', {
      body: { notation: '9x4 / 9x4', split: { key: '2.1', upright: true, parts: ['3 in', '6 in'] } },
    })
    expect(w.findAll('.cell')).toHaveLength(3)
    expect(w.get('textarea').element.value).toBe('9x4 / 3x4 | 6x4')
  })

  it('takes a further pocket with M and merges them, and takes the step back', async () => {
    const w = editor()
    await flushPromises()
    await w.findAll('.cell')[0]!.trigger('click')
    await w.findAll('.cell')[1]!.trigger('keydown', { key: 'm' })
    POST.mockResolvedValue({ data: draft('9x8', ['1.1']), response: { ok: true } })
    await button(w, 'Merge these 2 pockets').trigger('click')
    await flushPromises()
    expect(POST).toHaveBeenLastCalledWith('/api/designs/draft', {
      body: { notation: '9x4 / 9x4', merge: ['1.1', '2.1'] },
    })
    POST.mockResolvedValue({ data: draft('9x4 / 9x4', ['1.1', '2.1']), response: { ok: true } })
    await button(w, 'Undo').trigger('click')
    await flushPromises()
    expect(w.findAll('.cell')).toHaveLength(2)
  })

  it('says what is wrong with what is written, and keeps the draft', async () => {
    const w = editor()
    await flushPromises()
    POST.mockResolvedValue({
      error: { detail: 'The page design does not work at character 6.' },
      response: { ok: false, status: 422 },
    })
    await w.get('textarea').setValue('9x4 | 3x3')
    await w
      .findAll('form')
      .find((f) => f.text().includes('Draw this layout'))!
      .trigger('submit')
    await flushPromises()
    expect(w.get('[role=alert]').text()).toContain('character 6')
    expect(w.findAll('.cell')).toHaveLength(2)
    expect(w.get('textarea').element.value).toBe('9x4 | 3x3')
  })

  it('hands the name and the notation on to be kept', async () => {
    const w = editor()
    await flushPromises()
    await w.get('#design-name').setValue('Two strips')
    await w.findAll('form').at(-1)!.trigger('submit')
    expect(w.emitted('keep')).toEqual([['Two strips', '9x4 / 9x4']])
  })
})
