import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useNotices } from './notices'
import { usePreview } from './preview'

beforeEach(() => setActivePinia(createPinia()))

describe('before something is done to leaves', () => {
  it('is done at once when nothing changes sides', async () => {
    const call = vi.fn((preview: boolean) =>
      Promise.resolve({ done: 'Put a leaf in', editId: preview ? null : 'e1', changes: [] as string[], unitId: null }),
    )
    const { asked, ask } = usePreview(() => 'a')
    await ask(call)
    expect(call.mock.calls).toEqual([[true], [false]])
    expect(asked.value).toBeNull()
    expect(useNotices().notice?.text).toBe('Put a leaf in.')
  })

  it('says what changes and waits to be told', async () => {
    const call = vi.fn((preview: boolean) =>
      Promise.resolve({
        done: 'Took a leaf out',
        editId: preview ? null : 'e1',
        changes: ['2 pieces go to the tray'],
        unitId: null,
      }),
    )
    const { asked, ask } = usePreview(() => 'a')
    await ask(call)
    expect(call.mock.calls).toEqual([[true]])
    expect(asked.value?.changes).toEqual(['2 pieces go to the tray'])
    await asked.value!.go()
    await flushPromises()
    expect(call.mock.calls).toEqual([[true], [false]])
    expect(asked.value).toBeNull()
  })

  it('says why when it cannot be done at all', async () => {
    const { asked, ask } = usePreview(() => 'a')
    await ask(() => Promise.reject(new Error('no')))
    expect(asked.value).toBeNull()
    expect(useNotices().notice?.kind).toBe('refused')
  })
})
