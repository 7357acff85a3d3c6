import { useEventListener, useLocalStorage } from '@vueuse/core'

/** Whether shortcuts of one key work; WCAG 2.2, 2.1.4 asks for a way to turn them off. */
export const singleKeys = useLocalStorage('zesty.singleKeys', true, {
  serializer: { read: (kept) => kept !== 'off', write: (on) => (on ? 'on' : 'off') },
})

const writes = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Works also while somebody writes: no field has a use of its own for it. */
const alsoInFields = 'Ctrl+k'

/** Keys are left alone while somebody writes or a dialog is open. */
export function useShortcuts(keys: Record<string, (event: KeyboardEvent) => void>) {
  function onKey(event: KeyboardEvent) {
    if (event.defaultPrevented || document.querySelector('.modal.show')) return
    const command = event.ctrlKey || event.metaKey
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
    const shift = event.shiftKey && (command || event.key === ' ')
    const name = `${command ? 'Ctrl+' : ''}${shift ? 'Shift+' : ''}${key}`
    if (writes(event.target) && name !== alsoInFields) return
    const action = keys[name]
    if (!action || (!command && !singleKeys.value && name !== 'Escape')) return
    event.preventDefault()
    action(event)
  }
  useEventListener(window, 'keydown', onKey)
}
