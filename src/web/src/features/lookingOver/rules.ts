import type { AlbumFinding } from '../../api/client'

/** What the rules are called in the list of kinds. */
export const ruleNames: Record<AlbumFinding['rule'], string> = {
  emptyPocket: 'Empty pockets',
  lowResolution: 'Soft prints',
  cutThrough: 'Cropped through what must stay',
  onHolesOrFold: 'On holes or a fold',
  wordsCutOff: 'Words without room',
  wordsWrong: 'Dates and names in the words',
  lookalikesTouch: 'Look-alikes side by side',
  pairApart: 'Cards away from their picture',
  darkClump: 'Dark pictures in a clump',
  oneSideHeavier: 'One page heavier',
  tooColourful: 'Very colourful',
  ornamentsEven: 'An even number stuck on',
  dayWithNothing: 'Days with nothing',
  pictureTwice: 'The same picture twice',
  unitForgotten: 'Forgotten weeks and days',
  emptyBack: 'Empty pages',
  coloursClash: 'Colours that clash',
  nameSpeltTwoWays: 'Names spelt two ways',
  stockShort: 'Leaves to buy',
  seriesGap: 'Gaps in a series',
  personNeverNamed: 'People never named',
  bulkySpot: 'Thick at one spot',
  printedChanged: 'Changed since the print',
  printerNotMeasured: 'Printer not measured',
}
