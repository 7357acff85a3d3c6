import { describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { saveFirst, savesFirst } from './news'

describe('what was written a moment ago', () => {
  it('is saved before the changes of others are read, as long as its editor is open', () => {
    const save = vi.fn()
    const editor = effectScope()
    editor.run(() => savesFirst(save))
    saveFirst()
    expect(save).toHaveBeenCalledTimes(1)
    editor.stop()
    saveFirst()
    expect(save).toHaveBeenCalledTimes(1)
  })
})
