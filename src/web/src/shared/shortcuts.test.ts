import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { singleKeys, useShortcuts } from './shortcuts'

function desk(keys: Record<string, () => void>) {
  return mount(
    defineComponent({
      setup() {
        useShortcuts(keys)
        return () => h('div', [h('input'), h('p')])
      },
    }),
    { attachTo: document.body },
  )
}

const press = (init: KeyboardEventInit, target: EventTarget = document.body) =>
  target.dispatchEvent(new KeyboardEvent('keydown', { bubbles: true, cancelable: true, ...init }))

afterEach(() => {
  singleKeys.value = true
  document.body.innerHTML = ''
})

describe('shortcuts', () => {
  it('answer to single keys and to Ctrl', () => {
    const [fill, undo, redo] = [vi.fn(), vi.fn(), vi.fn()]
    const wrapper = desk({ f: fill, 'Ctrl+z': undo, 'Ctrl+Shift+z': redo })
    press({ key: 'f' })
    press({ key: 'z', ctrlKey: true })
    press({ key: 'Z', ctrlKey: true, shiftKey: true })
    expect([fill.mock.calls.length, undo.mock.calls.length, redo.mock.calls.length]).toEqual([1, 1, 1])
    wrapper.unmount()
    press({ key: 'f' })
    expect(fill).toHaveBeenCalledTimes(1)
  })

  it('leave somebody alone who is writing', () => {
    const [fill, undo, find] = [vi.fn(), vi.fn(), vi.fn()]
    const wrapper = desk({ f: fill, 'Ctrl+z': undo, 'Ctrl+k': find })
    press({ key: 'f' }, wrapper.find('input').element)
    press({ key: 'z', ctrlKey: true }, wrapper.find('input').element)
    expect(fill).not.toHaveBeenCalled()
    expect(undo).not.toHaveBeenCalled()
    press({ key: 'k', ctrlKey: true }, wrapper.find('input').element)
    expect(find).toHaveBeenCalledTimes(1)
    wrapper.unmount()
  })

  it('can be turned off, single keys only, as WCAG 2.1.4 asks', () => {
    const [fill, undo] = [vi.fn(), vi.fn()]
    const wrapper = desk({ f: fill, 'Ctrl+z': undo })
    singleKeys.value = false
    press({ key: 'f' })
    press({ key: 'z', ctrlKey: true })
    expect(fill).not.toHaveBeenCalled()
    expect(undo).toHaveBeenCalledTimes(1)
    wrapper.unmount()
  })
})
