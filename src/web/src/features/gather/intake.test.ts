import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ImportOutcome } from '../../api/client'
import { filesOf, useIntake } from './intake'

const file = (name: string) => new File(['x'], name)
const added = (name: string): ImportOutcome => ({
  fileName: name,
  status: 'added',
  detail: '',
  photoId: null,
  unitId: null,
})

beforeEach(() => setActivePinia(createPinia()))

describe('photos on their way in', () => {
  it('are all counted, the bad ones with their reason', async () => {
    const intake = useIntake()
    await intake.take([file('a.jpg'), file('b.jpg'), file('c.jpg')], async (f) =>
      f.name === 'b.jpg' ? { ...added('b.jpg'), status: 'refused', detail: 'breaks off' } : added(f.name),
    )
    expect([intake.done, intake.added, intake.refusedOnes.length, intake.running]).toEqual([3, 2, 1, false])
    expect(intake.refusedOnes[0]?.detail).toBe('breaks off')
  })

  it('keep going when one cannot be sent', async () => {
    const intake = useIntake()
    await intake.take([file('a.jpg'), file('b.jpg')], async (f) => {
      if (f.name === 'a.jpg') throw new Error('The server does not answer.')
      return added(f.name)
    })
    expect(intake.refusedOnes.map((o) => `${o.fileName}: ${o.detail}`)).toEqual(['a.jpg: The server does not answer.'])
    expect(intake.added).toBe(1)
  })

  it('stop when they are stopped', async () => {
    const intake = useIntake()
    const files = Array.from({ length: 20 }, (_, i) => file(`${i}.jpg`))
    await intake.take(files, async (f) => {
      if (intake.done === 3) intake.cancel()
      return added(f.name)
    })
    expect(intake.cancelled).toBe(true)
    expect(intake.done).toBeLessThan(8)
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
