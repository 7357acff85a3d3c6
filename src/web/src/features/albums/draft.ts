import type { AlbumView, DesignView } from '../../api/client'
import { deviceStyle, deviceTime, deviceZone } from '../../shared/dates'

export type Kind = AlbumView['kind']

/** A new album while its three steps are filled in. */
export interface AlbumDraft {
  kind: Kind
  name: string
  /** The album it is set up like; empty for none. */
  likeId: string
  body: string
  designs: string[]
  school: AlbumView['school']
  measures: AlbumView['measures']
  firstDay: string
  units: number | string
  scheme: 'iso' | 'sundayFirst' | 'fromFirstDay'
  homeZone: string
  dateOrder: AlbumView['dateOrder']
  clock: AlbumView['clock']
  wakingFrom: string
  wakingUntil: string
}

export const kinds: { key: Kind; name: string; hint: string }[] = [
  { key: 'weekly', name: 'Week by week', hint: 'Facing pages for each week of a year.' },
  { key: 'trip', name: 'A trip, day by day', hint: 'Facing pages for each travel day, over time zones.' },
  { key: 'documentedDay', name: 'One day, hour by hour', hint: 'A page for each waking hour.' },
  { key: 'countdown', name: 'Numbered days', hint: 'A page for each day of a countdown.' },
]

/** How many units an album of a kind begins with, its page size, and where it starts. */
export function ofKind(kind: Kind): Pick<AlbumDraft, 'kind' | 'firstDay' | 'units' | 'body'> {
  const today = deviceTime().slice(0, 10)
  return {
    kind,
    firstDay: kind === 'weekly' ? `${today.slice(0, 4)}-01-01` : today,
    units: { weekly: 52, trip: 9, documentedDay: 1, countdown: 24 }[kind],
    body: kind === 'weekly' ? '9x12' : '6x8',
  }
}

/** Inches and month first where the browser's region has them, facing pages, weeks from Monday. */
export function newDraft(): AlbumDraft {
  const style = deviceStyle()
  return {
    ...ofKind('weekly'),
    name: '',
    likeId: '',
    designs: [],
    school: 'spread',
    measures: 'inches',
    scheme: 'iso',
    homeZone: deviceZone(),
    dateOrder: style.order,
    clock: style.clock,
    wakingFrom: '07:00',
    wakingUntil: '22:00',
  }
}

/** Its pockets lie both ways, so that landscape and portrait photos have one each. */
const bothWays = (design: Pick<DesignView, 'pockets'>) =>
  design.pockets.some((p) => p.width > p.height) && design.pockets.some((p) => p.height > p.width)

/** What a page size begins with: the first design for photos of both orientations. */
export const usualDesign = (designs: DesignView[]) => (designs.find(bothWays) ?? designs[0])?.key

/** The draft set up like another album, with a year or a trip of its own. */
export const like = (draft: AlbumDraft, album: AlbumView): AlbumDraft => ({
  ...draft,
  ...ofKind(album.kind),
  likeId: album.id,
  body: album.protectors.find((p) => p.kind === 'pockets')?.body ?? draft.body,
  designs: album.protectors.filter((p) => !p.gone && p.kind === 'pockets').map((p) => p.designKey),
  school: album.school,
  measures: album.measures,
  dateOrder: album.dateOrder,
  clock: album.clock,
})

/** What is missing before the next step; empty when nothing is. */
export function missing(draft: AlbumDraft, step: number): string {
  if (step === 1 && !draft.name.trim()) return 'Give the album a name, such as “2026, week by week”.'
  if (step === 2 && !draft.designs.length) return 'Choose at least one page design.'
  if (step === 3 && !/^\d{4}-\d{2}-\d{2}$/.test(draft.firstDay)) return 'Choose the first day of the album.'
  return ''
}
