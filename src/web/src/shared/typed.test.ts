import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, reactive } from 'vue'
import { useTyped } from './typed'

/** A server that answers when it is told to, and says what it was sent. */
function slow() {
  const sent: { fields: Record<string, unknown>; answer: (ok: boolean) => void }[] = []
  const save = (fields: Record<string, unknown>) =>
    new Promise<boolean>((answer) => sent.push({ fields: { ...fields }, answer }))
  return { sent, save }
}
const settle = async () => {
  for (let i = 0; i < 6; i++) await nextTick()
}

describe('what is typed', () => {
  beforeEach(() => {
    localStorage.clear()
    vi.useFakeTimers()
    return () => vi.useRealTimers()
  })

  it('is not replaced by an answer to what was typed before it', async () => {
    const story = reactive({ id: 'a', title: '', theme: '', revision: 1 })
    const server = slow()
    await effectScope().run(async () => {
      const typed = useTyped({
        key: () => story.id,
        server: () => ({ title: story.title, theme: story.theme }),
        revision: () => story.revision,
        save: server.save,
      })
      typed.type('title', 'S')
      vi.advanceTimersByTime(700)
      typed.type('title', 'Swim')
      typed.type('theme', 'sea')
      Object.assign(story, { title: 'S', revision: 2 })
      server.sent[0]!.answer(true)
      await settle()
      expect({ ...typed.fields }).toEqual({ title: 'Swim', theme: 'sea' })
      expect(server.sent.map((s) => s.fields)).toEqual([
        { title: 'S', theme: '' },
        { title: 'Swim', theme: 'sea' },
      ])
      Object.assign(story, { title: 'Swim', theme: 'sea', revision: 3 })
      server.sent[1]!.answer(true)
      await settle()
      expect([typed.waits.value, localStorage.length]).toEqual([false, 0])
    })
  })

  it('passes an older answer over that comes in late', async () => {
    const story = reactive({ title: 'Swim', revision: 5 })
    await effectScope().run(async () => {
      const typed = useTyped({
        key: () => 'a',
        server: () => ({ title: story.title }),
        revision: () => story.revision,
        save: () => Promise.resolve(true),
      })
      Object.assign(story, { title: 'S', revision: 4 })
      await settle()
      expect(typed.fields.title).toBe('Swim')
      Object.assign(story, { title: 'Swim in the sea', revision: 6 })
      await settle()
      expect(typed.fields.title).toBe('Swim in the sea')
    })
  })

  it('stays after a refusal, and after a reload', async () => {
    const story = { title: 'Swim' }
    const make = (save: () => Promise<boolean>) =>
      useTyped({ key: () => 'a', server: () => ({ ...story }), save, wait: 100 })
    await effectScope().run(async () => {
      const typed = make(() => Promise.resolve(false))
      typed.type('title', 'Swim at dawn')
      vi.advanceTimersByTime(100)
      await settle()
      expect([typed.failed.value, typed.fields.title]).toEqual([true, 'Swim at dawn'])
      const again = make(() => Promise.resolve(true))
      expect([again.waits.value, again.fields.title]).toEqual([true, 'Swim at dawn'])
      await again.flush()
      expect(localStorage.length).toBe(0)
    })
  })

  it('goes to its own thing when the hand turns to another one', async () => {
    const at = reactive({ id: 'a' })
    const saved: unknown[] = []
    await effectScope().run(async () => {
      const typed = useTyped({
        key: () => at.id,
        server: () => ({ words: `of ${at.id}` }),
        save: (fields) => {
          saved.push(fields)
          return Promise.resolve(true)
        },
      })
      typed.type('words', 'written for a')
      at.id = 'b'
      await settle()
      expect([saved, typed.fields.words]).toEqual([[{ words: 'written for a' }], 'of b'])
    })
  })
})
