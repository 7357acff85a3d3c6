// Packs instances from standard input with the npm package guillotine-packer and prints how many sheets each takes.
// Usage: node guillotine-packer.mjs FOLDER_WITH_NODE_MODULES < instances.json
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'

const require = createRequire(`${process.argv[2]}/package.json`)
const { packer } = require('guillotine-packer')
const instances = JSON.parse(readFileSync(0, 'utf8'))
const counts = instances.map(({ width, height, items }) =>
  packer(
    { binWidth: width, binHeight: height, items: items.map(([w, h], i) => ({ name: `${i}`, width: w, height: h })) },
    {},
  ).length,
)
console.log(JSON.stringify(counts))
