import { describe, expect, it } from 'vitest'
import { framingOf, imageStyle, moved, zoomed, snapped } from './frame'

const half = { left: 0.25, top: 0.25, width: 0.5, height: 0.5 }

describe('a picture in its pocket', () => {
  it('moves with the hand and never leaves the picture', () => {
    expect(moved(half, 0.5, 0)).toEqual({ ...half, left: 0.5 })
    expect(moved(half, 5, -5)).toEqual({ ...half, left: 0.5, top: 0 })
  })

  it('zooms around its middle', () => {
    const closer = zoomed(half, 1, 2)
    expect(closer).toEqual({ left: 0.375, top: 0.375, width: 0.25, height: 0.25 })
    expect(zoomed(closer, 2, 1)).toEqual(half)
  })

  it('cannot be zoomed out beyond the whole', () => {
    const whole = zoomed({ left: 0.4, top: 0, width: 0.6, height: 1 }, 2, 1)
    expect(whole.width).toBe(1)
    expect(whole.left).toBe(0)
  })

  it('asks the server for the middle of what is shown', () => {
    expect(framingOf(half, 1.5)).toEqual({ centerX: 0.5, centerY: 0.5, zoom: 1.5 })
  })

  it('lies so that exactly the kept part shows', () => {
    expect(imageStyle(half)).toMatchObject({ width: '200%', height: '200%', left: '-50%', top: '-50%' })
  })

  it('snaps to a line of thirds when the focus comes near one, and only then', () => {
    const kept = { left: 0.1, top: 0.1, width: 0.6, height: 0.6 }
    const close = snapped(kept, { x: 0.31, y: 0.6 })
    expect((0.31 - close.left) / 0.6).toBeCloseTo(1 / 3)
    expect(close.top).toBe(0.1)
    expect(snapped(kept, { x: 0.2, y: 0.2 })).toEqual(kept)
    // Never over the edge of the picture.
    expect(snapped({ left: 0, top: 0, width: 0.9, height: 0.9 }, { x: 0.29, y: 0.29 }).left).toBe(0)
  })

  it('lays the horizon on a third before the focus', () => {
    const kept = { left: 0.1, top: 0.1, width: 0.6, height: 0.6 }
    const level = snapped(kept, { x: 0.9, y: 0.41 }, 0.31)
    expect((0.31 - level.top) / 0.6).toBeCloseTo(1 / 3)
    expect(snapped(kept, { x: 0.9, y: 0.41 }, null).top).toBeCloseTo(0.41 - 0.3)
  })

  it('turns around the middle of the kept part when it is straightened', () => {
    expect(imageStyle({ left: 0.2, top: 0, width: 0.4, height: 0.5 }, 3)).toMatchObject({
      transform: 'rotate(3deg)',
      transformOrigin: '40% 25%',
    })
    expect(imageStyle(half).transform).toBeUndefined()
  })
})
