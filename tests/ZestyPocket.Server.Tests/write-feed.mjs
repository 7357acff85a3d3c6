// Writes two posts with the package feed as RSS, Atom and JSON Feed, one JSON object. Usage: write-feed.mjs WEB_FOLDER
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const web = createRequire(join(process.argv[2], 'package.json'))
const { Feed } = await import(pathToFileURL(web.resolve('feed')).href)
const feed = new Feed({ title: 'Marrowick', id: 'https://example.org/', link: 'https://example.org/', copyright: '' })
feed.addItem({
  title: 'Beans & peas',
  id: 'https://example.org/beans',
  link: 'https://example.org/beans',
  date: new Date('2026-05-06T17:30:00Z'),
  published: new Date('2026-05-06T17:30:00Z'),
  content:
    '<p>We planted <b>beans</b> &amp; peas.</p><p>It rained.<br>Twice.</p>' +
    '<img src="https://example.org/i/garden.jpg?w=800" onerror="alert(1)">' +
    '<script>alert(2)</script>',
  author: [{ name: 'Otto', email: 'otto@example.org' }],
})
feed.addItem({
  title: 'After midnight',
  id: 'https://example.org/late',
  link: 'https://example.org/late',
  date: new Date('2026-05-07T01:10:00Z'),
  published: new Date('2026-05-07T01:10:00Z'),
  content: '<ul><li>one</li><li>two</li></ul>',
  author: [{ name: 'Junie' }],
})
process.stdout.write(JSON.stringify({ rss: feed.rss2(), atom: feed.atom1(), json: feed.json1() }))
