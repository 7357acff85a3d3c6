// Other people's answers, to check against: ways on the ellipsoid by geographiclib-geodesic, projections by d3-geo.
// Usage: node travel-oracle.mjs WEB_FOLDER < {"pairs": [[lat, lon, lat, lon]],
//   "maps": [{"middle": [lat, lon], "places": [[lat, lon]]}]}
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const web = createRequire(join(process.argv[2], 'package.json'))
const load = async (name) => {
  const module = await import(pathToFileURL(web.resolve(name)).href)
  return module.default ?? module
}
const { Geodesic } = await load('geographiclib-geodesic')
const d3 = await import(pathToFileURL(join(process.argv[2], 'node_modules/d3-geo/src/index.js')).href)
const { pairs, maps } = JSON.parse(readFileSync(0, 'utf8'))
const metres = pairs.map(([a, b, c, d]) => Geodesic.WGS84.Inverse(a, b, c, d).s12)
const points = maps.map(({ middle, places }) => {
  const projection = (middle ? d3.geoAzimuthalEqualArea().rotate([-middle[1], -middle[0]]) : d3.geoEqualEarth())
    .scale(1)
    .translate([0, 0])
    .precision(0)
    .clipAngle(null)
  return places.map(([lat, lon]) => projection([lon, lat]))
})
process.stdout.write(JSON.stringify({ metres, points }))
