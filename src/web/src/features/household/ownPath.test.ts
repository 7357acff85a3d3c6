import { describe, expect, it } from 'vitest'
import { ownPath } from './ownPath'

const origin = 'http://127.0.0.1:5180'

describe('ownPath', () => {
  it('leads to places of this program', () => {
    expect(ownPath('/albums/7/all/print#x', origin)).toBe('/albums/7/all/print#x')
    expect(ownPath('/join?a=b#secret', origin)).toBe('/join?a=b#secret')
  })

  it('never leads to another site', () => {
    for (const wanted of [
      '//host',
      '/\\host',
      '/\t/host',
      '/\n/host',
      '\\\\host',
      'http://host/',
      'javascript:alert(1)',
      '/.//host',
      ['/a', '/b'],
      undefined,
      null,
    ]) {
      const to = ownPath(wanted, origin)
      expect(new URL(to, origin).origin).toBe(origin)
      expect(to.startsWith('//')).toBe(false)
    }
  })
})
