// Reads texts as JSON from standard input; writes levels and visual order of each, worked out by bidi-js.
// Usage: bidi-levels.mjs WEB_FOLDER
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'

const web = createRequire(join(process.argv[2], 'package.json'))
const bidi = web('bidi-js')()
const texts = JSON.parse(readFileSync(0, 'utf8'))
process.stdout.write(
  JSON.stringify(
    texts.map((text) => {
      const found = bidi.getEmbeddingLevels(text)
      return {
        levels: [...found.levels],
        rightToLeft: found.paragraphs.length > 0 && found.paragraphs[0].level % 2 === 1,
        order: bidi.getReorderedIndices(text, found)
      }
    })
  )
)
