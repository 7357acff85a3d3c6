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

/** So near, in shares of the kept part, a line of thirds takes the point that the eye goes to. */
const near = 0.025

/**
 * The kept part moved so that the horizon, else the focus, lies on a line of thirds or in the middle, when it is near
 * one.
 */
export function snapped(kept: Kept, focus: { x: number; y: number }, horizon?: number | null): Kept {
  const along = (at: number, size: number, points: number[]) => {
    for (const point of points) {
      const share = (point - at) / size
      const line = [1 / 3, 1 / 2, 2 / 3].find((l) => Math.abs(share - l) < near)
      if (line !== undefined) return clamp(point - line * size, 0, 1 - size)
    }
    return at
  }
  const levels = horizon === undefined || horizon === null ? [focus.y] : [horizon, focus.y]
  return { ...kept, left: along(kept.left, kept.width, [focus.x]), top: along(kept.top, kept.height, levels) }
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

/** Where a box of the picture lies in the pocket that shows the kept part. */
export const boxStyle = (box: { x: number; y: number; width: number; height: number }, kept: Kept) => ({
  left: `${(100 * (box.x - kept.left)) / kept.width}%`,
  top: `${(100 * (box.y - kept.top)) / kept.height}%`,
  width: `${(100 * box.width) / kept.width}%`,
  height: `${(100 * box.height) / kept.height}%`,
})

/** How a picture must lie so that exactly the kept part shows in its box, turned around the middle of that. */
export function imageStyle(kept: Kept, degrees = 0) {
  return {
    transform: degrees ? `rotate(${degrees}deg)` : undefined,
    transformOrigin: `${100 * (kept.left + kept.width / 2)}% ${100 * (kept.top + kept.height / 2)}%`,
    width: `${100 / kept.width}%`,
    height: `${100 / kept.height}%`,
    left: `${(-100 * kept.left) / kept.width}%`,
    top: `${(-100 * kept.top) / kept.height}%`,
  }
}
