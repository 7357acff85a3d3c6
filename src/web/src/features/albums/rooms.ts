/** Rooms that show the whole album. */
export const rooms = [
  { key: 'overview', name: 'Overview' },
  { key: 'photos', name: 'Photos' },
  { key: 'cameras', name: 'Cameras and stays' },
  { key: 'keepsakes', name: 'Keepsakes' },
  { key: 'series', name: 'Series' },
  { key: 'leaves', name: 'Leaves' },
  { key: 'designs', name: 'Page designs' },
  { key: 'formulas', name: 'Formulas' },
  { key: 'words', name: 'Words' },
  { key: 'styles', name: 'Card styles' },
  { key: 'letters', name: 'Letters' },
]
