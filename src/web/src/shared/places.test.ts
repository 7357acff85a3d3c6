import { describe, expect, it } from 'vitest'
import { albumPlace, nearestScope, place, readScope, roomOf, tabOf, unitPlace, writeScope, type Scope } from './places'

const rooms = (tab: string) => tabOf(tab).rooms

describe('places of an album', () => {
  it('write and read every scope in the address', () => {
    const scopes: Scope[] = [
      { kind: 'album' },
      { kind: 'unit', from: 'w1' },
      { kind: 'stretch', from: 'w1', until: 'w4' },
    ]
    expect(scopes.map(writeScope)).toEqual(['all', 'w1', 'w1..w4'])
    for (const scope of scopes) expect(readScope(writeScope(scope))).toEqual(scope)
    expect(readScope('w1..w1')).toEqual({ kind: 'unit', from: 'w1' })
    expect(readScope('')).toBeUndefined()
  })

  it('keep the scope where a step can show it, else take the nearest', () => {
    const album: Scope = { kind: 'album' }
    const stretch: Scope = { kind: 'stretch', from: 'w2', until: 'w4' }
    expect(nearestScope(rooms('gather'), album, 'w9')).toEqual(album)
    expect(nearestScope(rooms('place'), album, 'w9')).toEqual({ kind: 'unit', from: 'w9' })
    expect(nearestScope(rooms('place'), stretch, 'w9')).toEqual(stretch)
    expect(nearestScope(rooms('gather'), stretch, 'w9')).toEqual({ kind: 'unit', from: 'w2' })
    expect(nearestScope(rooms('print'), stretch, 'w9')).toEqual(stretch)
    expect(nearestScope(rooms('overview'), stretch, 'w9')).toEqual(album)
  })

  it('open the first room that shows the scope, and leave a single room unnamed', () => {
    expect(unitPlace('a', 'w1', 'tell')).toMatchObject({ params: { scope: 'w1', tab: 'tell', room: 'cards' } })
    expect(albumPlace('a', 'tell')).toMatchObject({ params: { scope: 'all', tab: 'tell', room: 'styles' } })
    expect(place('a', { kind: 'unit', from: 'w1' }, 'place')).toMatchObject({ params: { room: '' } })
    expect(roomOf(tabOf('place'), '')?.key).toBe('spread')
    expect(roomOf(tabOf('tell'), 'nowhere')).toBeUndefined()
  })
})
