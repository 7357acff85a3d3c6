import type { RouteLocationRaw } from 'vue-router'

/** What a tab looks at: one week or day, several in a row, or the whole album. */
export type ScopeKind = 'unit' | 'stretch' | 'album'
export type Scope =
  { kind: 'album' } | { kind: 'unit'; from: string } | { kind: 'stretch'; from: string; until: string }

export type TabKey = 'overview' | 'gather' | 'tell' | 'count' | 'place' | 'look' | 'print' | 'tuck' | 'keep'

export interface Room {
  key: string
  name: string
  /** The scopes it can show, the one it opens with first. */
  scopes: readonly ScopeKind[]
}

export interface Tab {
  key: TabKey
  name: string
  rooms: readonly Room[]
}

/** The steps of the work in their order, each with its rooms. */
export const tabs: readonly Tab[] = [
  { key: 'overview', name: 'Overview', rooms: [{ key: 'album', name: 'Album', scopes: ['album'] }] },
  {
    key: 'gather',
    name: 'Gather',
    rooms: [
      { key: 'photos', name: 'Photos', scopes: ['unit', 'album'] },
      { key: 'cameras', name: 'Cameras & places', scopes: ['album'] },
      { key: 'trip', name: 'Trip log', scopes: ['album'] },
      { key: 'keepsakes', name: 'Keepsakes', scopes: ['album'] },
      { key: 'videos', name: 'Videos', scopes: ['album'] },
      { key: 'series', name: 'Series', scopes: ['album'] },
    ],
  },
  {
    key: 'tell',
    name: 'Tell',
    rooms: [
      { key: 'cards', name: 'Stories & cards', scopes: ['unit', 'stretch'] },
      { key: 'styles', name: 'Card styles', scopes: ['album'] },
      { key: 'lettering', name: 'Lettering', scopes: ['album'] },
      { key: 'people', name: 'People', scopes: ['album'] },
      { key: 'contributions', name: 'Contributions', scopes: ['album', 'unit'] },
    ],
  },
  {
    key: 'count',
    name: 'Count',
    rooms: [
      { key: 'tally', name: 'Tally', scopes: ['unit', 'stretch', 'album'] },
      { key: 'leaves', name: 'Leaves', scopes: ['album'] },
      { key: 'designs', name: 'Page designs', scopes: ['album'] },
      { key: 'protectors', name: 'Page protectors', scopes: ['album'] },
      { key: 'formulas', name: 'Formulas', scopes: ['album'] },
    ],
  },
  { key: 'place', name: 'Place', rooms: [{ key: 'spread', name: 'Spread', scopes: ['unit', 'stretch'] }] },
  {
    key: 'look',
    name: 'Look over',
    rooms: [
      { key: 'findings', name: 'Findings', scopes: ['unit', 'stretch', 'album'] },
      { key: 'reading', name: 'Leaf through', scopes: ['album', 'unit', 'stretch'] },
    ],
  },
  {
    key: 'print',
    name: 'Print',
    rooms: [
      { key: 'sheets', name: 'Sheets', scopes: ['unit', 'stretch'] },
      { key: 'lab', name: 'Lab', scopes: ['unit', 'stretch'] },
      { key: 'papers', name: 'Papers', scopes: ['album'] },
      { key: 'printers', name: 'Printers', scopes: ['album'] },
    ],
  },
  { key: 'tuck', name: 'Tuck in', rooms: [{ key: 'table', name: 'Table', scopes: ['unit', 'stretch'] }] },
  {
    key: 'keep',
    name: 'Keep',
    rooms: [
      { key: 'thickness', name: 'Thickness', scopes: ['album'] },
      { key: 'pace', name: 'Pace', scopes: ['album'] },
      { key: 'stash', name: 'Stash', scopes: ['album', 'unit'] },
      { key: 'costs', name: 'Costs', scopes: ['album'] },
      { key: 'year', name: 'Year', scopes: ['album'] },
      { key: 'book', name: 'Book', scopes: ['album', 'unit', 'stretch'] },
      { key: 'sharing', name: 'Sharing', scopes: ['album'] },
      { key: 'backup', name: 'Backup', scopes: ['album'] },
    ],
  },
]

export const tabOf = (key: string | undefined): Tab => tabs.find((t) => t.key === key) ?? tabs[0]!

/** The room an address names; a tab with one room has no need to name it. */
export const roomOf = (tab: Tab, key: string | undefined): Room | undefined =>
  tab.rooms.find((r) => r.key === key) ?? (tab.rooms.length === 1 && !key ? tab.rooms[0] : undefined)

/** The room a tab opens for a scope: the first that can show it, else its first. */
export const firstRoom = (tab: Tab, scope: ScopeKind): Room =>
  tab.rooms.find((r) => r.scopes.includes(scope)) ?? tab.rooms[0]!

/** A scope as it stands in the address: `all`, a unit, or `first..last`. */
export function readScope(text: string | undefined): Scope | undefined {
  if (!text) return undefined
  if (text === 'all') return { kind: 'album' }
  const [from, until] = text.split('..')
  return until && until !== from ? { kind: 'stretch', from: from!, until } : { kind: 'unit', from: from! }
}

export const writeScope = (scope: Scope): string =>
  scope.kind === 'album' ? 'all' : scope.kind === 'unit' ? scope.from : `${scope.from}..${scope.until}`

export const place = (albumId: string, scope: Scope, tab: TabKey, room?: string): RouteLocationRaw => ({
  name: 'album',
  params: {
    albumId,
    scope: writeScope(scope),
    tab,
    room: tabOf(tab).rooms.length > 1 ? (room ?? firstRoom(tabOf(tab), scope.kind).key) : '',
  },
})

/** A step of the work at one week or day. */
export const unitPlace = (albumId: string, unitId: string, tab: TabKey, room?: string) =>
  place(albumId, { kind: 'unit', from: unitId }, tab, room)

/** A room that shows the whole album. */
export const albumPlace = (albumId: string, tab: TabKey, room?: string) => place(albumId, { kind: 'album' }, tab, room)

/** The scope nearest to the one in hand that a list of rooms can show. */
export function nearestScope(rooms: readonly Room[], scope: Scope, unitId: string): Scope {
  const can = (kind: ScopeKind) => rooms.some((r) => r.scopes.includes(kind))
  if (can(scope.kind)) return scope
  const from = scope.kind === 'album' ? unitId : scope.from
  return can('unit') && from ? { kind: 'unit', from } : { kind: 'album' }
}
