import type { WrittenComposition } from '../../api/client'

export type WrittenShape = WrittenComposition['shapes'][number]

/** Compositions to begin with, as the core makes them. */
export const starts: { key: string; name: string }[] = [
  { key: 'circle', name: 'Circle in the middle' },
  { key: 'circle-and-foot', name: 'Circle over a half circle of words' },
  { key: 'circle-head-and-foot', name: 'Circle between two half circles' },
  { key: 'arch', name: 'Arch' },
  { key: 'arch-and-band', name: 'Arch over a band of words' },
  { key: 'band', name: 'Band across the middle' },
  { key: 'window', name: 'Window with words under it' },
  { key: 'two-circles', name: 'Two circles' },
  { key: 'three-circles', name: 'Three circles' },
  { key: 'tag', name: 'Tag with words' },
  { key: 'half-sun', name: 'Half circle rising from the foot' },
]

export const across: { place: WrittenShape['across']; name: string }[] = [
  { place: 'left', name: 'left edge' },
  { place: 'firstThird', name: 'first third' },
  { place: 'centre', name: 'centre' },
  { place: 'secondThird', name: 'second third' },
  { place: 'right', name: 'right edge' },
]

export const down: { place: WrittenShape['down']; name: string }[] = [
  { place: 'top', name: 'top edge' },
  { place: 'firstThird', name: 'first third' },
  { place: 'middle', name: 'middle' },
  { place: 'secondThird', name: 'second third' },
  { place: 'bottom', name: 'bottom edge' },
]

export const newShape = (): WrittenShape => ({
  shape: 'circle',
  across: 'centre',
  down: 'middle',
  width: '2 in',
  height: '2 in',
  photoId: null,
  styleKey: null,
  colour: '#ffffff',
  words: '',
  matReveal: null,
  matColour: null,
})
