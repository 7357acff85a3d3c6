import { describe, expect, it } from 'vitest'
import { answer, Refusal } from './client'

const refused = async (status: number, error: object) => {
  try {
    await answer(Promise.resolve({ error, response: new Response('', { status }) }))
  } catch (refusal) {
    return refusal as Refusal
  }
  throw new Error('It was not refused.')
}

describe('a refusal', () => {
  it('in words of the server says them', async () => {
    const refusal = await refused(422, { detail: 'A name has 1 to 80 characters.' })
    expect(refusal.message).toBe('A name has 1 to 80 characters.')
    expect(refusal.mayBeDone).toBe(false)
  })

  it('by a proxy does not claim that nothing was changed', async () => {
    const refusal = await refused(502, {})
    expect(refusal.message).toContain('It may have been done or not')
    expect(refusal.mayBeDone).toBe(true)
  })
})
