// A GPX file from standard input as the package @tmcw/togeojson reads it: for each track its kind and its points.
// Usage: read-gpx.mjs WEB_FOLDER
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const web = createRequire(join(process.argv[2], 'package.json'))
const load = async (name) => import(pathToFileURL(web.resolve(name)).href)
const { JSDOM } = await load('jsdom')
const { gpx } = await load('@tmcw/togeojson')
const document = new new JSDOM('').window.DOMParser().parseFromString(readFileSync(0, 'utf8'), 'text/xml')
const tracks = gpx(document).features.map(({ geometry, properties }) => ({
  kind: properties.type ?? null,
  points: geometry.type === 'MultiLineString' ? geometry.coordinates.flat() : geometry.coordinates,
  times: (properties.coordinateProperties?.times ?? []).flat(),
}))
process.stdout.write(JSON.stringify(tracks))
