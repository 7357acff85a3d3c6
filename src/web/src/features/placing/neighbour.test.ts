import { describe, expect, it } from 'vitest'
import { neighbour } from './neighbour'

// Three rows of 6x4 + 3x4 on the left, nine 3x4 on the right of the gutter.
const left = [0, 1, 2].flatMap((row) => [
  { x: 0, y: row * 4, width: 6, height: 4 },
  { x: 6, y: row * 4, width: 3, height: 4 },
])
const right = [0, 1, 2].flatMap((row) => [0, 1, 2].map((col) => ({ x: 10 + col * 3, y: row * 4, width: 3, height: 4 })))
const boxes = [...left, ...right]

describe('arrow keys between pockets', () => {
  it('go to the pocket beside, above and below', () => {
    expect(neighbour(boxes, 0, 'ArrowRight')).toBe(1)
    expect(neighbour(boxes, 0, 'ArrowDown')).toBe(2)
    expect(neighbour(boxes, 3, 'ArrowUp')).toBe(1)
    expect(neighbour(boxes, 3, 'ArrowLeft')).toBe(2)
  })

  it('cross the gutter to the facing page', () => {
    expect(neighbour(boxes, 1, 'ArrowRight')).toBe(6)
    expect(neighbour(boxes, 6, 'ArrowLeft')).toBe(1)
  })

  it('stop at the edges', () => {
    expect(neighbour(boxes, 0, 'ArrowLeft')).toBe(-1)
    expect(neighbour(boxes, 0, 'ArrowUp')).toBe(-1)
    expect(neighbour([], 0, 'ArrowUp')).toBe(-1)
  })

  it('reach every pocket of the spread', () => {
    const seen = new Set([0])
    const queue = [0]
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      for (const key of ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const) {
        const to = neighbour(boxes, at, key)
        if (to >= 0 && !seen.has(to)) {
          seen.add(to)
          queue.push(to)
        }
      }
    }
    expect(seen.size).toBe(boxes.length)
  })
})
