/** The kept part of a picture as fractions of it, and the keeper's wish behind it. */
export interface Kept {
  left: number
  top: number
  width: number
  height: number
}

export interface Framing {
  centerX: number
  centerY: number
  zoom: number
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high)

/** Moves the kept part by fractions of its own width and height; it never leaves the picture. */
export function moved(kept: Kept, dx: number, dy: number): Kept {
  return {
    ...kept,
    left: clamp(kept.left + dx * kept.width, 0, 1 - kept.width),
    top: clamp(kept.top + dy * kept.height, 0, 1 - kept.height),
  }
}

/** Zooms around the middle of the kept part. */
export function zoomed(kept: Kept, from: number, to: number): Kept {
  const width = Math.min(1, (kept.width * from) / to)
  const height = Math.min(1, (kept.height * from) / to)
  const left = clamp(kept.left + (kept.width - width) / 2, 0, 1 - width)
  const top = clamp(kept.top + (kept.height - height) / 2, 0, 1 - height)
  return { left, top, width, height }
}

/** The framing that asks the server for this part. */
export const framingOf = (kept: Kept, zoom: number): Framing => ({
  centerX: kept.left + kept.width / 2,
  centerY: kept.top + kept.height / 2,
  zoom,
})

/** How a picture must lie so that exactly the kept part shows in its box. */
export function imageStyle(kept: Kept) {
  return {
    width: `${100 / kept.width}%`,
    height: `${100 / kept.height}%`,
    left: `${(-100 * kept.left) / kept.width}%`,
    top: `${(-100 * kept.top) / kept.height}%`,
  }
}
