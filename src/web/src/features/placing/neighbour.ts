export interface Box {
  x: number
  y: number
  width: number
  height: number
}

export type Direction = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown'

/** The index of the nearest box in a direction, or -1: what an arrow key goes to. */
export function neighbour(boxes: Box[], from: number, direction: Direction): number {
  const here = boxes[from]
  if (!here) return -1
  const middle = (b: Box) => ({ x: b.x + b.width / 2, y: b.y + b.height / 2 })
  const at = middle(here)
  let best = -1
  let bestScore = Infinity
  boxes.forEach((box, i) => {
    if (i === from) return
    const to = middle(box)
    const [dx, dy] = [to.x - at.x, to.y - at.y]
    const [along, across] = {
      ArrowLeft: [-dx, dy],
      ArrowRight: [dx, dy],
      ArrowUp: [-dy, dx],
      ArrowDown: [dy, dx],
    }[direction] as [number, number]
    if (along <= 1) return
    const score = along + 2 * Math.abs(across)
    if (score < bestScore) [best, bestScore] = [i, score]
  })
  return best
}
