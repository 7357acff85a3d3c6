import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { AlbumView, CountView, PageChoice } from '../../api/client'
import PageChoices from './PageChoices.vue'

const POST = vi.fn()
const GET = vi.fn()
vi.mock('../../api/client', async (original) => ({
  ...(await original<typeof import('../../api/client')>()),
  api: { POST: (...args: unknown[]) => POST(...args), GET: (...args: unknown[]) => GET(...args) },
}))
const edit = vi.fn()
vi.mock('../../shared/edits', () => ({ editAlbum: (...args: unknown[]) => edit(...args) }))

const choice: PageChoice = {
  name: 'Balanced',
  says: 'One leaf more; no pocket stays empty.',
  leaves: 1,
  empty: 0,
  cropPercent: 0,
  unplaced: 0,
  buy: ['1 × Nine 3x4'],
  proved: false,
  gap: 1.5,
  units: [{ unitId: 'u', title: 'Week 19', says: 'One leaf between.', pockets: 27, empty: 0, unplaced: 0 }],
  standing: [{ leafId: 'l', protectorId: 'p', fused: 1 }],
  extra: [{ unitId: 'u', protectorId: 'p', leaves: 1, fused: 0 }],
}
const search = (state: string, choices?: PageChoice[]) => ({
  id: 's',
  state,
  waysDone: 1,
  waysTotal: 4,
  choices: choices ?? null,
  problem: null,
})
const album = { id: 'a', protectors: [] } as unknown as AlbumView
const counts = [{ unitId: 'u', revision: 4 }] as unknown as CountView[]
const stubs = {
  BButton: { template: '<button :type="$attrs.type ?? \'button\'"><slot /></button>' },
  BModal: { props: ['modelValue'], template: '<div v-if="modelValue" role="dialog"><slot /></div>' },
}
const panel = () =>
  mount(PageChoices, { props: { album, counts, from: 'u' }, global: { plugins: [createPinia()], stubs } })
const button = (w: ReturnType<typeof panel>, text: string) =>
  w.findAll('button').find((b) => b.text().startsWith(text))!

beforeEach(() => {
  POST.mockReset()
  POST.mockResolvedValue({ data: search('running'), response: { ok: true } })
  GET.mockReset()
  GET.mockResolvedValue({ data: search('done', [choice]), response: { ok: true } })
})

describe('which pages hold it all', () => {
  it('says why, what to buy, and how far from the best it may be', async () => {
    const w = panel()
    await button(w, 'Find pages').trigger('click')
    await vi.waitFor(() => expect(w.text()).toContain('To buy'))
    expect(POST).toHaveBeenCalledWith(
      '/api/albums/{albumId}/pages/searches',
      expect.objectContaining({
        body: { requestKey: expect.any(String), ask: { from: 'u', count: 1, weights: null } },
      }),
    )
    expect(w.text()).toContain('To buy: 1 × Nine 3x4')
    expect(w.text()).toContain('At most 1.5 % from the best')
    expect(w.text()).toContain('Week 19: One leaf between.')
  })

  it('sends the weights that the keeper has moved', async () => {
    const w = panel()
    await w.get('#weight-leaf').setValue(30000)
    await button(w, 'Find pages').trigger('click')
    await flushPromises()
    expect(POST.mock.calls[0]![1].body.ask.weights).toEqual({
      leaf: 30000,
      emptyPocket: 300,
      crop: 1,
      change: 50,
      alter: 400,
    })
    await button(w, 'Reset').trigger('click')
    expect(w.get<HTMLInputElement>('#weight-leaf').element.value).toBe('5000')
  })

  it('takes a way with its fused pockets, after saying what it changes', async () => {
    const w = panel()
    await button(w, 'Find pages').trigger('click')
    await vi.waitFor(() => expect(button(w, 'Use these pages')).toBeDefined())
    edit.mockResolvedValue({
      done: 'Chose the pages',
      editId: null,
      changes: ['3 pieces go to the tray'],
      unitId: null,
    })
    await button(w, 'Use these pages').trigger('click')
    await flushPromises()
    expect(w.get('[role=dialog]').text()).toContain('3 pieces go to the tray')
    await button(w, 'Apply').trigger('click')
    await flushPromises()
    expect(edit.mock.calls.map((c) => c[2])).toEqual([true, false])
    expect(edit.mock.calls[1]![1]).toMatchObject({
      kind: 'choosePages',
      units: [{ unitId: 'u', revision: 4 }],
      standing: [{ leafId: 'l', protectorId: 'p', fused: 1 }],
    })
  })
})
