// Sunrise and sunset by the package suncalc. Input: lines "ISO noon instant, latitude, longitude".
// Usage: sun-times.mjs WEB_FOLDER
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const web = createRequire(join(process.argv[2], 'package.json'))
const module = await import(pathToFileURL(web.resolve('suncalc')).href)
const getTimes = module.getTimes ?? module.default.getTimes
const out = readFileSync(0, 'utf8')
  .trim()
  .split('\n')
  .map((line) => {
    const [at, latitude, longitude] = line.split(',')
    const t = getTimes(new Date(at), Number(latitude), Number(longitude))
    return [t.sunrise, t.sunset].map((d) => (d && !Number.isNaN(d.getTime()) ? d.toISOString() : null))
  })
process.stdout.write(JSON.stringify(out))
