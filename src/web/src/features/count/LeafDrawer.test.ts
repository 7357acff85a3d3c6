import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { AlbumView, LeafDetail } from '../../api/client'
import LeafDrawer from './LeafDrawer.vue'

const PUT = vi.fn()
const POST = vi.fn()
const DELETE = vi.fn()
vi.mock('../../api/client', async (original) => ({
  ...(await original<typeof import('../../api/client')>()),
  api: {
    PUT: (...args: unknown[]) => PUT(...args),
    POST: (...args: unknown[]) => POST(...args),
    DELETE: (...args: unknown[]) => DELETE(...args),
  },
}))
const face = { pockets: [], marks: [], holes: [], ringStripX: 0, ringStripWidth: 10, holeWidth: 0 }
const detail = ref<LeafDetail>()
vi.mock('../albums/queries', () => ({
  useLeaf: () => ({ data: detail, error: ref(null) }),
  useRefresh: () => () => Promise.resolve(),
}))

const album = { id: 'a', units: [{ id: 'u', revision: 7 }] } as unknown as AlbumView
const stubs = {
  BButton: {
    props: ['disabled'],
    template: '<button :type="$attrs.type ?? \'button\'" :disabled="disabled"><slot /></button>',
  },
  BModal: { props: ['modelValue'], template: '<div v-if="modelValue" role="dialog"><slot /></div>' },
  RouterLink: { template: '<a><slot /></a>' },
}
const drawer = () =>
  mount(LeafDrawer, { props: { album, leafId: 'l2', leaves: 5 }, global: { plugins: [createPinia()], stubs } })
const button = (w: ReturnType<typeof drawer>, text: string) =>
  w.findAll('button').find((b) => b.text().startsWith(text))!

beforeEach(() => {
  for (const call of [PUT, POST, DELETE]) {
    call.mockReset()
    call.mockResolvedValue({ data: { done: 'Done', editId: 'e', moved: [] }, response: { ok: true } })
  }
  detail.value = {
    leaf: {
      leafId: 'l2',
      revision: 3,
      number: 2,
      kind: 'pockets',
      design: 'Three rows of 6x4 + 3x4',
      note: null,
      tab: 'May',
      tabPlace: 1,
      between: true,
      front: { unitId: 'u', title: 'Week 19', placed: 1, pockets: 6 },
      back: { unitId: 'u', title: 'Week 19', placed: 0, pockets: 6 },
    },
    width: 8_915_400,
    height: 11_201_400,
    front: {
      ...face,
      pockets: [{ key: '1.1', number: 1, behindNumber: 2, size: '6x4', x: 0, y: 0, width: 1, height: 1, stuck: false }],
    },
    back: face,
    fusible: [{ label: 'Fuse 6x4 (pocket 1) into two 3x4', pocketKey: '1.1', keeps: null, size: null }],
    cuts: [{ label: 'Keep 6 in beside the rings', pocketKey: null, keeps: 'columns', size: '6 in' }],
    altered: true,
    unitTitle: 'Week 19',
    thickness: '0.2 mm',
  } as unknown as LeafDetail
})

describe('the leaf in hand', () => {
  it('warns of heat and blades where pockets are fused and pages cut', () => {
    const words = drawer().get('.caution').text()
    expect(words).toContain('guard the blade')
    expect(words).toContain("Follow the maker's instructions")
  })

  it('fuses, cuts down, sticks and takes a new leaf on the revision that is shown, looking first', async () => {
    const w = drawer()
    await button(w, 'Fuse 6x4').trigger('click')
    await flushPromises()
    await button(w, 'Keep 6 in').trigger('click')
    await flushPromises()
    await w.get('input[type=checkbox]').trigger('change')
    await flushPromises()
    await button(w, 'Take a new leaf instead').trigger('click')
    await flushPromises()
    const bodies = PUT.mock.calls.map((c) => c[1].body)
    expect(bodies.map((b) => b.preview)).toEqual([true, false, true, false, true, false, true, false])
    expect(bodies[1]).toEqual({ revision: 3, fuse: { pocketKey: '1.1' }, preview: false })
    expect(bodies[3]).toEqual({ revision: 3, cutDown: { keeps: 'columns', size: '6 in' }, preview: false })
    expect(bodies[5]).toEqual({ revision: 3, stick: { pocketKey: '1.1', together: true }, preview: false })
    expect(bodies[7]).toEqual({ revision: 3, anew: true, preview: false })
  })

  it('moves by one place or to a number, counted from nothing', async () => {
    const w = drawer()
    await button(w, 'One place on').trigger('click')
    await flushPromises()
    await w.get('#leaf-to').setValue(5)
    await w
      .findAll('form')
      .find((f) => f.text().includes('Move it there'))!
      .trigger('submit')
    await flushPromises()
    expect(POST.mock.calls.map((c) => c[1].body.to)).toEqual([2, 2, 4, 4])
  })

  it('takes out a leaf between pages on the revision of its part, after saying what goes to the tray', async () => {
    DELETE.mockResolvedValue({
      data: { done: 'Took a leaf out', editId: null, moved: ['1 piece goes to the tray'] },
      response: { ok: true },
    })
    const w = drawer()
    await button(w, 'Take it out').trigger('click')
    await flushPromises()
    expect(DELETE.mock.calls[0]![1].params.query).toEqual({ revision: 7, preview: true })
    expect(w.get('[role=dialog]').text()).toContain('1 piece goes to the tray')
    await button(w, 'Leave it as it is').trigger('click')
    expect(DELETE).toHaveBeenCalledTimes(1)
    expect(w.find('[role=dialog]').exists()).toBe(false)
  })

  it('keeps the words and the place of its tab', async () => {
    const w = drawer()
    expect(w.get<HTMLInputElement>('#tab-words').element.value).toBe('May')
    await w.get('#tab-words').setValue('June')
    await w.findAll('form').at(-1)!.trigger('submit')
    await flushPromises()
    expect(PUT.mock.calls[1]![1].body).toEqual({ revision: 3, tab: { words: 'June', place: 1 }, preview: false })
  })
})
