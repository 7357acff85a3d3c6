import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { AlbumView, LeafDetail } from '../../api/client'
import LeafDrawer from './LeafDrawer.vue'

const edit = vi.fn()
vi.mock('../../shared/edits', () => ({ editAlbum: (...args: unknown[]) => edit(...args) }))
const face = { pockets: [], marks: [], holes: [], ringStripX: 0, ringStripWidth: 10, holeWidth: 0 }
const detail = ref<LeafDetail>()
vi.mock('./queries', () => ({ useLeaf: () => ({ data: detail, error: ref(null) }) }))

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
  edit.mockReset()
  edit.mockResolvedValue({ done: 'Done', editId: 'e', changes: [], unitId: null })
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
    await button(w, 'Use a new leaf').trigger('click')
    await flushPromises()
    const of = { leafId: 'l2', revision: 3 }
    expect(edit.mock.calls.map((c) => c[2])).toEqual([true, false, true, false, true, false, true, false])
    expect(edit.mock.calls.filter((c) => !c[2]).map((c) => c[1])).toEqual([
      { kind: 'fusePocket', ...of, pocketKey: '1.1' },
      { kind: 'cutLeafDown', ...of, keeps: 'columns', size: '6 in' },
      { kind: 'stickPieces', ...of, pocketKey: '1.1', together: true },
      { kind: 'renewLeaf', ...of },
    ])
  })

  it('moves by one place or to a number, counted from nothing', async () => {
    const w = drawer()
    await button(w, 'Move later').trigger('click')
    await flushPromises()
    await w.get('#leaf-to').setValue(5)
    await w
      .findAll('form')
      .find((f) => f.text().trim().endsWith('Move'))!
      .trigger('submit')
    await flushPromises()
    expect(edit.mock.calls.map((c) => c[1].to)).toEqual([2, 2, 4, 4])
  })

  it('takes out a leaf between pages on the revision of its part, after saying what goes to the tray', async () => {
    edit.mockResolvedValue({
      done: 'Took a leaf out',
      editId: null,
      changes: ['1 piece goes to the tray'],
      unitId: null,
    })
    const w = drawer()
    await button(w, 'Remove this leaf').trigger('click')
    await flushPromises()
    expect(edit.mock.calls[0]).toEqual(['a', { kind: 'removeLeaf', unitId: 'u', revision: 7, leafId: 'l2' }, true])
    expect(w.get('[role=dialog]').text()).toContain('1 piece goes to the tray')
    await button(w, 'Cancel').trigger('click')
    expect(edit).toHaveBeenCalledTimes(1)
    expect(w.find('[role=dialog]').exists()).toBe(false)
  })

  it('keeps the words and the place of its tab', async () => {
    const w = drawer()
    expect(w.get<HTMLInputElement>('#tab-words').element.value).toBe('May')
    await w.get('#tab-words').setValue('June')
    await w.findAll('form').at(-1)!.trigger('submit')
    await flushPromises()
    expect(edit.mock.calls[1]![1]).toEqual({ kind: 'tabLeaf', leafId: 'l2', revision: 3, words: 'June', place: 1 })
  })
})
