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

  it('does not write over what somebody else has written meanwhile, until the hand says so', async () => {
    const story = reactive({ title: 'Swim', theme: '', revision: 1 })
    const saved: unknown[] = []
    await effectScope().run(async () => {
      const make = () =>
        useTyped({
          key: () => 'a',
          server: () => ({ title: story.title, theme: story.theme }),
          revision: () => story.revision,
          save: (fields) => {
            saved.push({ ...fields })
            Object.assign(story, fields, { revision: story.revision + 1 })
            return Promise.resolve(true)
          },
        })
      const typed = make()
      typed.type('title', 'Swim at dawn')
      Object.assign(story, { title: 'Otto swims', theme: 'sea', revision: 2 })
      await settle()
      expect([await typed.flush(), typed.failed.value, { ...typed.fields }, saved]).toEqual([
        false,
        true,
        { title: 'Swim at dawn', theme: 'sea' },
        [],
      ])
      // Nor does a draft that a closed window has left.
      expect([await make().flush(), saved]).toEqual([false, []])
      expect([await typed.again(), saved]).toEqual([true, [{ title: 'Swim at dawn', theme: 'sea' }]])
      expect([typed.failed.value, typed.waits.value, localStorage.length]).toEqual([false, false, 0])
    })
  })

  it('counts as saved when the server has it, though the answer was lost', async () => {
    const story = reactive({ title: '', revision: 1 })
    let calls = 0
    await effectScope().run(async () => {
      const typed = useTyped({
        key: () => 'a',
        server: () => ({ title: story.title }),
        save: (fields) => {
          calls++
          story.title = fields.title
          return Promise.resolve(false)
        },
      })
      typed.type('title', 'Swim')
      expect([await typed.flush(), typed.failed.value]).toEqual([false, true])
      expect([await typed.again(), typed.waits.value, calls]).toEqual([true, false, 1])
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
