// Breaks paragraphs into lines with the package tex-linebreak, by the widths given, and writes microseconds per story.
// Input: { width, advances: {letter: em}, stories: [...] }. Usage: tex-linebreak.mjs WEB_FOLDER
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'

const web = createRequire(join(process.argv[2], 'package.json'))
const { layoutItemsFromString, breakLines } = web('tex-linebreak')
const { width, advances, stories } = JSON.parse(readFileSync(0, 'utf8'))
const measure = (word) => {
  let sum = 0
  for (const letter of word) sum += advances[letter] ?? 0.5
  return sum
}
const times = []
let lines = 0
for (const story of stories) {
  const start = process.hrtime.bigint()
  const items = layoutItemsFromString(story, measure)
  lines += breakLines(items, width, { maxAdjustmentRatio: null }).length
  times.push(Number(process.hrtime.bigint() - start) / 1000)
}
process.stdout.write(JSON.stringify({ times, lines }))
