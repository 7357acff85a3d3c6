import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refusal, type ImportView } from '../../api/client'
import { filesOf, useIntake, type ImportDoor } from './intake'

const file = (name: string) => new File(['x'], name)

/** A server that takes everything and is done two looks after it was closed. */
function door(over: Partial<ImportDoor> = {}) {
  const state = { received: [] as string[], closed: false, cancelled: false, looks: 0 }
  const view = (): ImportView => ({
    id: 'i1',
    albumId: 'a',
    source: 'files',
    madeAt: '2026-06-06T10:00:00Z',
    state: state.cancelled ? 'cancelled' : state.closed && state.looks > 1 ? 'done' : 'receiving',
    files: state.received.length,
    waiting: 0,
    added: state.received.length,
    alreadyHere: 0,
    refused: 0,
    cancelled: 0,
    refusedLines: [],
  })
  const made: ImportDoor = {
    begin: async () => view(),
    send: async (_, f, key) => state.received.push(`${key} ${f.name}`),
    close: async () => ((state.closed = true), view()),
    cancel: async () => ((state.cancelled = true), view()),
    look: async () => (state.closed && state.looks++, view()),
    ...over,
  }
  return { made, state }
}

beforeEach(() => {
  setActivePinia(createPinia())
  useIntake().hurry()
})

describe('photos on their way in', () => {
  it('are sent under a key each and followed to the end', async () => {
    const intake = useIntake()
    const { made, state } = door()
    const seen = vi.fn()
    await intake.take('a', [file('a.jpg'), file('b.jpg'), file('c.jpg')], made, seen)
    expect(state.received.toSorted()).toEqual(['0 a.jpg', '1 b.jpg', '2 c.jpg'])
    expect([intake.finished, intake.running, intake.view?.added]).toEqual([true, false, 3])
    expect(seen).toHaveBeenCalled()
  })

  it('go on when the server comes back, under the same key', async () => {
    const intake = useIntake()
    let down = 3
    const base = door()
    const { made, state } = {
      ...base,
      made: {
        ...base.made,
        send: async (id: string, f: File, key: string, signal: AbortSignal) => {
          if (f.name === 'b.jpg' && down-- > 0) throw new Refusal('The server does not answer.', 0)
          return base.made.send(id, f, key, signal)
        },
      },
    }
    await intake.take('a', [file('a.jpg'), file('b.jpg')], made)
    expect(state.received.toSorted()).toEqual(['0 a.jpg', '1 b.jpg'])
    expect(intake.problem).toBe('')
  })

  it('tell a refusal and keep what has arrived', async () => {
    const intake = useIntake()
    const base = door()
    const made = {
      ...base.made,
      send: async (id: string, f: File, key: string, signal: AbortSignal) => {
        if (f.name === 'b.jpg') throw new Refusal('One import takes 20,000 files at most.', 422)
        return base.made.send(id, f, key, signal)
      },
    }
    await intake.take('a', [file('a.jpg'), file('b.jpg'), file('c.jpg')], made)
    expect(intake.problem).toBe('One import takes 20,000 files at most.')
    expect([base.state.closed, intake.finished]).toEqual([true, true])
  })

  it('stop when they are stopped', async () => {
    const intake = useIntake()
    const base = door()
    const made: ImportDoor = {
      ...base.made,
      send: async (id, f, key, signal) => {
        if (key === '3') await intake.cancel(made)
        return base.made.send(id, f, key, signal)
      },
    }
    await intake.take(
      'a',
      Array.from({ length: 20 }, (_, i) => file(`${i}.jpg`)),
      made,
    )
    expect(intake.view?.state).toBe('cancelled')
    expect(base.state.received.length).toBeLessThan(8)
  })

  it('come out of folders in folders', async () => {
    const entry = (f: File) => ({ isFile: true, file: (ok: (f: File) => void) => ok(f) })
    const folder = (children: unknown[]) => ({
      isFile: false,
      createReader: () => {
        const batches = [children, []]
        return { readEntries: (ok: (c: unknown[]) => void) => ok(batches.shift() ?? []) }
      },
    })
    const tree = folder([entry(file('1.jpg')), folder([entry(file('2.jpg')), entry(file('3.jpg'))])])
    const transfer = { items: [{ webkitGetAsEntry: () => tree }], files: [] }
    expect((await filesOf(transfer as unknown as DataTransfer)).map((f) => f.name)).toEqual(['1.jpg', '2.jpg', '3.jpg'])
  })
})
