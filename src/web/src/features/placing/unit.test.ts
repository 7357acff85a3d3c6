import { describe, expect, it } from 'vitest'
import { newer } from './unit'

describe('answers of the server', () => {
  it('that are older than what is on the screen are dropped', () => {
    const shown = { id: 'w19', revision: 5 }
    expect(newer(shown, { id: 'w19', revision: 4 })).toBe(shown)
  })

  it('that are newer, or of the same revision, or of another week are taken', () => {
    for (const fresh of [
      { id: 'w19', revision: 6 },
      { id: 'w19', revision: 5 },
      { id: 'w20', revision: 1 },
    ]) {
      expect(newer({ id: 'w19', revision: 5 }, fresh)).toBe(fresh)
    }
    expect(newer(undefined, { id: 'w19', revision: 0 })).toEqual({ id: 'w19', revision: 0 })
  })
})
