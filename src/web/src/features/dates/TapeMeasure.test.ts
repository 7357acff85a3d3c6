import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { AlbumView, UnitSummary } from '../../api/client'
import { unitPlace } from '../../shared/places'
import TapeMeasure from './TapeMeasure.vue'

const push = vi.fn()
const merge = vi.fn()
const leaveOut = vi.fn()
const grow = vi.fn()
vi.mock('./tape', () => ({ useTape: () => ({ merge, split: vi.fn(), leaveOut, rename: vi.fn(), grow }) }))
vi.mock('vue-router', () => ({ useRouter: () => ({ push, resolve: () => ({ href: '' }) }) }))

const week = (number: number, firstDay: string, lastDay: string, more: Partial<UnitSummary> = {}): UnitSummary => ({
  id: `w${number}`,
  revision: 0,
  title: `Week ${number}`,
  mark: String(number),
  weight: 1,
  leftOut: false,
  label: `${firstDay} – ${lastDay}`,
  firstDay,
  lastDay,
  photos: 0,
  cardsTold: 0,
  piecesPlaced: 0,
  piecesPrinted: 0,
  piecesTucked: 0,
  pockets: 12,
  ...more,
})

const units = [
  week(1, '2025-12-29', '2026-01-04'),
  week(2, '2026-01-05', '2026-01-11', { photos: 1, cardsTold: 2, piecesPlaced: 6 }),
  week(5, '2026-01-26', '2026-02-01'),
  week(6, '2026-02-02', '2026-02-08'),
]

const album = (list: UnitSummary[] = units, kind: AlbumView['kind'] = 'weekly') =>
  ({ id: 'a', kind, units: list, today: '2026-01-06' }) as unknown as AlbumView

const tape = (of = album()) =>
  mount(TapeMeasure, {
    props: { album: of, current: 'w1', scope: { kind: 'unit', from: 'w1' }, tab: 'place' },
    attachTo: document.body,
  })

beforeEach(() => {
  vi.useFakeTimers({ now: new Date('2026-01-06T10:00:00Z') })
  push.mockReset()
})
afterEach(() => {
  vi.useRealTimers()
  document.body.innerHTML = ''
})

describe('the tape', () => {
  it('says how far each week is', () => {
    const ticks = tape().findAll('.tick')
    expect(ticks[1]!.attributes('aria-label')).toBe(
      'Week 2, 2026-01-05 – 2026-01-11: 1 photo, 2 cards, 6 of 12 pockets filled, this week',
    )
    expect(ticks[0]!.attributes('aria-current')).toBe('page')
  })

  it('prints a month over the first week that counts to it', () => {
    const months = tape()
      .findAll('.tape-month')
      .map((m) => m.text())
    expect(months).toEqual(['Jan 2026', '', '', 'Feb'])
  })

  it('is one stop for the tab key and moves by arrows, home and end', async () => {
    const wrapper = tape()
    const ticks = wrapper.findAll('.tick')
    expect(ticks.map((t) => t.attributes('tabindex'))).toEqual(['0', '-1', '-1', '-1'])
    await ticks[0]!.trigger('keydown', { key: 'ArrowRight' })
    expect(document.activeElement?.getAttribute('data-unit')).toBe('w2')
    await ticks[1]!.trigger('keydown', { key: 'End' })
    expect(document.activeElement?.getAttribute('data-unit')).toBe('w6')
    await ticks[3]!.trigger('keydown', { key: 'ArrowRight' })
    expect(document.activeElement?.getAttribute('data-unit')).toBe('w6')
  })

  it('opens a week on a click and keeps the tab', async () => {
    const wrapper = tape()
    await wrapper.findAll('.tick')[2]!.trigger('click')
    expect(push).toHaveBeenCalledWith(unitPlace('a', 'w5', 'place'))
  })

  it('shows merged days long and days left out hatched, and says so', () => {
    const days = [
      { ...week(1, '2026-06-06', '2026-06-06'), title: 'Day 1' },
      { ...week(2, '2026-06-07', '2026-06-08'), title: 'Days 2–3', mark: '2–3', weight: 2 },
      { ...week(4, '2026-06-09', '2026-06-09'), title: 'Day 4', leftOut: true },
    ]
    const wrapper = tape(album(days, 'trip'))
    expect(wrapper.findAll('li').map((li) => li.attributes('style'))).toEqual([
      'flex-basis: 34px;',
      'flex-basis: 68px;',
      'flex-basis: 34px;',
    ])
    expect(wrapper.findAll('.tick')[2]!.classes()).toContain('out')
    expect(wrapper.findAll('.tick')[2]!.attributes('aria-label')).toContain('left out on purpose')
  })

  it('merges, leaves out and grows by single keys', async () => {
    const ticks = tape().findAll('.tick')
    await ticks[1]!.trigger('keydown', { key: 'm' })
    expect(merge).toHaveBeenCalledWith(units[1])
    await ticks[2]!.trigger('keydown', { key: 'l' })
    expect(leaveOut).toHaveBeenCalledWith(units[2], true)
    await ticks[3]!.trigger('keydown', { key: 'n' })
    expect(grow).toHaveBeenCalledWith(1, true)
  })
})
