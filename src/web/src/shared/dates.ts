import type { AlbumView } from '../api/client'

type Order = AlbumView['dateOrder']

/** English with the day or the month first, as the album has it. */
const locale = (order: Order) => (order === 'monthDay' ? 'en-US' : 'en-GB')

/** Noon of a day such as 2026-05-14, in a zone of its own: no clock changes what day it is. */
const noon = (day: string) => new Date(`${day}T12:00:00Z`)

/** A day such as 14 May 2026, or May 14, 2026. */
export const dayText = (day: string, order: Order) =>
  new Intl.DateTimeFormat(locale(order), { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    noon(day),
  )

/** A month such as May, or May 2026. */
export const monthText = (day: string, withYear = false) =>
  new Intl.DateTimeFormat('en-GB', {
    month: 'short',
    timeZone: 'UTC',
    ...(withYear ? { year: 'numeric' } : {}),
  }).format(noon(day))

/** The day so many days after another. */
export function daysAfter(day: string, days: number): string {
  const at = noon(day)
  at.setUTCDate(at.getUTCDate() + days)
  return at.toISOString().slice(0, 10)
}

/** A moment by the clock of this device: 2026-06-06T14:30:05. */
export const deviceTime = (at = new Date()) =>
  new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 19)

/** The zone of this device, such as Europe/London. */
export const deviceZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone || 'Etc/UTC'

/** How this device writes dates and hours: what a new album starts with. */
export function deviceStyle(language = navigator.language): { order: Order; clock: AlbumView['clock'] } {
  const parts = new Intl.DateTimeFormat(language, { dateStyle: 'short' }).formatToParts(noon('2026-05-14'))
  const at = (type: string) => parts.findIndex((p) => p.type === type)
  const hours = new Intl.DateTimeFormat(language, { hour: 'numeric' }).resolvedOptions().hour12
  return {
    order: at('month') < at('day') && at('year') > at('day') ? 'monthDay' : 'dayMonth',
    clock: hours ? 'twelve' : 'twentyFour',
  }
}
