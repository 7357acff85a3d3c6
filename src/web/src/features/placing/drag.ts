import { onBeforeUnmount } from 'vue'
import { useHand, type InHand } from './hand'

/** Pixels a pointer must travel before a press becomes a drag. */
const dragAfter = 6

interface Press {
  x: number
  y: number
  held: InHand
  picture: string | null
  label: string
}

/**
 * Dragging pieces with the pointer: a ghost follows it, and where it is let go the piece is dropped.
 * The click that ends a drag is swallowed, so that nothing is put twice.
 */
export function usePieceDrag(drop: (held: InHand, x: number, y: number) => void) {
  const hand = useHand()
  let press: Press | null = null

  function start(event: PointerEvent, held: InHand, picture: string | null, label: string) {
    if (event.button !== 0) return
    press = { x: event.clientX, y: event.clientY, held, picture, label }
    window.addEventListener('pointermove', onMove)
    window.addEventListener('pointerup', onUp, { once: true })
    window.addEventListener('pointercancel', stop, { once: true })
  }

  function onMove(event: PointerEvent) {
    if (!press) return
    if (!hand.ghost && Math.hypot(event.clientX - press.x, event.clientY - press.y) < dragAfter) return
    hand.held = press.held
    hand.ghost = { x: event.clientX, y: event.clientY, picture: press.picture, label: press.label }
  }

  function onUp(event: PointerEvent) {
    const held = hand.ghost ? press?.held : undefined
    stop()
    if (!held) return
    hand.held = null
    drop(held, event.clientX, event.clientY)
    window.addEventListener('click', swallow, { capture: true, once: true })
    setTimeout(() => window.removeEventListener('click', swallow, { capture: true }), 0)
  }

  function stop() {
    press = null
    hand.ghost = null
    window.removeEventListener('pointermove', onMove)
    window.removeEventListener('pointerup', onUp)
    window.removeEventListener('pointercancel', stop)
  }

  onBeforeUnmount(stop)
  return { start }
}

function swallow(event: Event) {
  event.stopPropagation()
  event.preventDefault()
}
