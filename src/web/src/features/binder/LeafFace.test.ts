import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { LeafFaceDetail } from '../../api/client'
import LeafFace from './LeafFace.vue'

const inch = 914_400
const face = (over: Partial<LeafFaceDetail['pockets'][number]> = {}): LeafFaceDetail => ({
  ringStripX: 0,
  ringStripWidth: 0.625 * inch,
  holeWidth: 0.25 * inch,
  holes: [{ x: 0.3 * inch, y: 4 * inch }],
  marks: [{ kind: 'fold', x1: 3 * inch, y1: 0, x2: 3 * inch, y2: 8 * inch }],
  pockets: [
    {
      key: '1.1',
      number: 1,
      behindNumber: 3,
      size: '3x4',
      x: inch,
      y: 0,
      width: 3 * inch,
      height: 4 * inch,
      piece: 'a picture',
      faceUrl: '/face',
      stuck: false,
      leftEmpty: false,
      seeThrough: false,
      ...over,
    },
  ],
})
const drawn = (detail = face()) =>
  mount(LeafFace, { props: { face: detail, width: 7 * inch, height: 8 * inch, side: 'front', title: 'Week 19' } })

describe('a face of a leaf', () => {
  it('numbers a pocket and the pocket behind it, so that a back is never a surprise', () => {
    const texts = drawn()
      .findAll('text')
      .map((t) => t.text())
    expect(texts[0]).toBe('1')
    expect(texts[1]).toContain('3')
    expect(drawn().get('svg').attributes('aria-label')).toBe('Front, Week 19: 1 a picture')
  })

  it('says what is stuck and what is left empty', () => {
    expect(
      drawn(face({ stuck: true }))
        .get('svg')
        .attributes('aria-label'),
    ).toContain('stuck to its back')
    expect(
      drawn(face({ piece: null, leftEmpty: true }))
        .get('svg')
        .attributes('aria-label'),
    ).toContain('left empty')
    expect(
      drawn(face({ seeThrough: true }))
        .find('rect.through')
        .exists(),
    ).toBe(true)
  })

  it('draws holes and folds, in units that browsers can set type in', () => {
    const w = drawn()
    expect(w.get('circle.hole').attributes('cx')).toBe('30')
    expect(w.get('line.fold').attributes('x1')).toBe('300')
    expect(Number(w.get('text').attributes('font-size'))).toBeLessThan(500)
  })
})
