import { describe, expect, it } from 'vitest'
import { dayText, daysAfter, deviceStyle, deviceTime, monthText } from './dates'
import { counted, plural } from './words'

describe('dates in words', () => {
  it('follow the order of the album', () => {
    expect(dayText('2026-05-14', 'dayMonth')).toBe('14 May 2026')
    expect(dayText('2026-05-14', 'monthDay')).toBe('May 14, 2026')
    expect([monthText('2026-05-14'), monthText('2026-01-01', true)]).toEqual(['May', 'Jan 2026'])
  })

  it('count over months and leap days', () => {
    expect([daysAfter('2024-02-28', 1), daysAfter('2025-12-31', 1), daysAfter('2026-05-04', -7)]).toEqual([
      '2024-02-29',
      '2026-01-01',
      '2026-04-27',
    ])
  })

  it('start as the device writes them', () => {
    expect(deviceStyle('en-GB')).toEqual({ order: 'dayMonth', clock: 'twentyFour' })
    expect(deviceStyle('en-US')).toEqual({ order: 'monthDay', clock: 'twelve' })
    // The year first is neither of the two; the day first is the better guess outside America.
    expect(deviceStyle('sv-SE').order).toBe('dayMonth')
    expect(deviceTime(new Date(2026, 5, 6, 14, 30, 5))).toBe('2026-06-06T14:30:05')
  })
})

describe('numbers with their things', () => {
  it('have the right plural', () => {
    expect([counted(1, 'line'), counted(0, 'line'), counted(1200, 'story', 'stories')]).toEqual([
      '1 line',
      '0 lines',
      '1,200 stories',
    ])
    expect([plural(1, 'is', 'are'), plural(2, 'is', 'are')]).toEqual(['is', 'are'])
  })
})
