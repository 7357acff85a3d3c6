// Reads a calendar from standard input with ical.js and writes its events as JSON. Usage: read-ics.mjs WEB_FOLDER
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

const web = createRequire(join(process.argv[2], 'package.json'))
const { default: ICAL } = await import(pathToFileURL(web.resolve('ical.js')).href)
const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, 'utf8')))
const events = calendar.getAllSubcomponents('vevent').map((component) => {
  const event = new ICAL.Event(component)
  const starts = []
  const steps = event.iterator()
  for (let next = steps.next(); next && starts.length < 100; next = steps.next()) starts.push(next.toString())
  return {
    uid: event.uid,
    summary: event.summary,
    zone: component.getFirstProperty('dtstart').getParameter('tzid') ?? '',
    minutes: event.duration.toSeconds() / 60,
    alarms: component.getAllSubcomponents('valarm').length,
    starts: event.isRecurring() ? starts : [event.startDate.toString()],
  }
})
process.stdout.write(JSON.stringify(events))
