import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { AlbumView, BinderLeaf } from '../../api/client'
import LeavesRoom from './LeavesRoom.vue'

const leaf = (number: number): BinderLeaf =>
  ({
    leafId: `l${number}`,
    revision: 1,
    number,
    kind: number === 3 ? 'divider' : 'pockets',
    design: number === 3 ? 'Clear divider' : 'Nine 3x4',
    tab: number === 2 ? 'May' : null,
    tabPlace: 0,
    between: number === 3,
    widthShare: 1,
    heightShare: 1,
    front: { unitId: 'u', title: `Week ${18 + number}`, placed: 2, pockets: number === 3 ? 0 : 9 },
    back: { unitId: 'v', title: `Week ${19 + number}`, placed: 0, pockets: number === 3 ? 0 : 9 },
    shapes: [{ key: '1.1', x: 0, y: 0, width: 2743200, height: 3657600 }],
    bodyWidth: 8229600,
    bodyHeight: 10972800,
    inserts: number === 2 ? [{ albumId: 'trip', name: 'Canal', leaves: 4, words: '4 leaves after Week 20' }] : [],
  }) as unknown as BinderLeaf

vi.mock('./queries', () => ({
  useLeaves: () => ({ data: ref(Array.from({ length: 120 }, (_, i) => leaf(i + 1))), error: ref(null) }),
}))
vi.mock('./InsertsPanel.vue', () => ({ default: { template: '<div />' } }))
vi.mock('./LeafDrawer.vue', () => ({ default: { props: ['leafId'], template: '<aside>{{ leafId }}</aside>' } }))

const room = () =>
  mount(LeavesRoom, {
    props: { album: { id: 'a', facesPerUnit: 2, school: 'spread' } as unknown as AlbumView },
    attachTo: document.body,
    global: {
      plugins: [createPinia()],
      stubs: { BModal: true, BButton: true, RouterLink: { template: '<a><slot /></a>' } },
    },
  })

describe('the binder', () => {
  it('shows every leaf with both faces, and is one stop for the keyboard', () => {
    const w = room()
    expect(w.findAll('.leaf')).toHaveLength(120)
    expect(w.findAll('.leaf[tabindex="0"]')).toHaveLength(1)
    expect(w.get('[data-testid=leaves-sum]').text()).toContain('120 leaves, 2,142 pockets')
    expect(w.findAll('.leaf')[1]!.text()).toContain('May')
    expect(w.findAll('.leaf')[2]!.text()).toContain('no pockets')
    expect(w.get('[data-testid=leaves-sum]').text()).toContain('4 more leaves of inserted albums')
    expect(w.get('[data-testid=inserted-leaves]').text()).toBe('Canal4 leaves after Week 20')
    expect(w.findAll('.mirrored')).toHaveLength(120)
  })

  it('moves from leaf to leaf by the arrow keys, and the leaf in hand is open beside them', async () => {
    const w = room()
    await w.findAll('.leaf')[0]!.trigger('keydown', { key: 'ArrowRight' })
    await w.findAll('.leaf')[1]!.trigger('keydown', { key: 'ArrowRight' })
    expect(w.get('aside').text()).toBe('l3')
    expect(w.get('.leaf[tabindex="0"]').attributes('id')).toBe('leaf-l3')
    await w.findAll('.leaf')[2]!.trigger('keydown', { key: 'End' })
    expect(w.get('aside').text()).toBe('l120')
    await w.findAll('.leaf')[119]!.trigger('keydown', { key: 'Home' })
    expect(w.get('aside').text()).toBe('l1')
    expect(w.get('.leaf[aria-pressed="true"]').attributes('id')).toBe('leaf-l1')
  })
})
