import type { NoteView, PieceView } from '../../api/client'

export type CardKind = NonNullable<PieceView['cardKind']>

/** The kinds of card one can add, as people name them. */
export const cardKinds: { kind: CardKind; name: string; hint: string }[] = [
  { kind: 'journaling', name: 'Journaling', hint: 'what happened' },
  { kind: 'overheard', name: 'Overheard', hint: 'a quote and who said it' },
  { kind: 'prompts', name: 'Today I am', hint: 'reading, wearing, listening to' },
  { kind: 'highsAndLows', name: 'Highs and lows', hint: 'the best and the worst' },
  { kind: 'incident', name: 'Incident', hint: 'what went wrong' },
  { kind: 'why', name: 'Why this album', hint: 'for the first page' },
  { kind: 'weekTitle', name: 'Title', hint: 'number and span, computed' },
  { kind: 'dayTitle', name: 'Title of a day', hint: 'weekday and date, computed' },
  { kind: 'people', name: 'Who was there', hint: 'ages on that date, computed' },
  { kind: 'fromTo', name: 'From and to', hint: 'computed from the stays' },
  { kind: 'map', name: 'The way', hint: 'on a map, by tracks and pictures, computed' },
  { kind: 'facts', name: 'Facts of the day', hint: 'daylight and weather, computed' },
  { kind: 'numbers', name: 'In numbers', hint: 'days, people, pictures, computed' },
  { kind: 'countdown', name: 'Countdown', hint: 'days until, computed' },
  { kind: 'calendar', name: 'Calendar', hint: 'the month or week with your notes, computed' },
  { kind: 'divider', name: 'Divider of a day', hint: 'date, from and to, on clear film, computed' },
  { kind: 'legend', name: 'Legend', hint: 'the numbered pictures, line by line, computed' },
  { kind: 'filler', name: 'Filler', hint: 'a pattern' },
]

const computedKinds: CardKind[] = [
  'weekTitle',
  'dayTitle',
  'people',
  'map',
  'fromTo',
  'facts',
  'numbers',
  'countdown',
  'calendar',
  'divider',
  'legend',
]

/** Whether what stands on a card follows from the album and is not typed. */
export const isComputed = (kind: CardKind | null | undefined) => !!kind && computedKinds.includes(kind)

/** Whether a card takes words. */
export const takesWords = (kind: CardKind | null | undefined) => !!kind && kind !== 'filler' && !isComputed(kind)

type Face = NonNullable<PieceView['caption']>['face']

/** The faces that ship with the program, as people name them. */
export const typefaces: { face: Face; name: string }[] = [
  { face: 'sans', name: 'Sans' },
  { face: 'sansStrong', name: 'Sans, strong' },
  { face: 'serif', name: 'Serif' },
  { face: 'typewriter', name: 'Typewriter' },
  { face: 'handwriting', name: 'Handwriting' },
  { face: 'display', name: 'Display' },
  { face: 'bookSerif', name: 'Book serif, old-style figures' },
  { face: 'bookItalic', name: 'Book italic' },
  { face: 'bookSmallCapitals', name: 'Book small capitals' },
  { face: 'oldStyle', name: 'Old style, light' },
  { face: 'oldStyleItalic', name: 'Old style italic' },
  { face: 'poster', name: 'Poster' },
  { face: 'condensed', name: 'Condensed' },
  { face: 'grotesque', name: 'Grotesque' },
  { face: 'rounded', name: 'Rounded' },
  { face: 'mono', name: 'Monospaced' },
  { face: 'monoStrong', name: 'Monospaced, strong' },
]

/** What a quick note is about. */
export const noteKinds: Record<NoteView['kind'], string> = {
  plain: 'Anything',
  overheard: 'Overheard',
  price: 'A price',
  weather: 'The weather',
}
