import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { CountView } from '../../api/client'
import TallyBar from './TallyBar.vue'

const count = (pieces: number, pockets: number): CountView =>
  ({
    sum: `${pieces} pieces; ${pockets} pockets`,
    pieces,
    pockets,
    lacking: Math.max(0, pieces - pockets),
    free: Math.max(0, pockets - pieces),
    wanted: [
      { name: 'landscape photos', kind: 'picture', count: pieces - 1 },
      { name: 'cards', kind: 'card', count: 1 },
    ],
    bySize: [{ size: '3 × 4 in', count: pockets, free: 2 }],
  }) as unknown as CountView

describe('the sum as a picture', () => {
  it('marks the pieces that have no pocket', () => {
    const bar = mount(TallyBar, { props: { count: count(7, 4) } })
    expect(bar.findAll('.bar .cell')).toHaveLength(7)
    expect(bar.findAll('.bar .cell.over')).toHaveLength(3)
    expect(bar.text()).toContain('without a pocket')
    expect(bar.get('[role=img]').attributes('aria-label')).toBe('7 pieces; 4 pockets')
  })

  it('draws the pockets that stay free', () => {
    const bar = mount(TallyBar, { props: { count: count(3, 9) } })
    expect(bar.findAll('.bar .cell.free')).toHaveLength(6)
    expect(bar.findAll('.bar .cell.over')).toHaveLength(0)
    expect(bar.text()).toContain('9 pockets of 3 × 4 in, 2 open now')
  })
})
