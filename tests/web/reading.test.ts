import { beforeEach, describe, expect, test, vi } from 'vitest'
import { hrefOf, readAddress, readOpened, writeAddress } from '../../src/web/reader/address'
import type { Edition, Entry, Look } from '../../src/web/reader/edition'
import { daysOf, groupsOf } from '../../src/web/reader/groups'
import { Speech } from '../../src/web/reader/speech'
import { narrowed, spanOf } from '../../src/web/reader/useReading'
import ar from '../../src/words/ar/reader.json'
import de from '../../src/words/de/reader.json'
import en from '../../src/words/en/reader.json'
import fr from '../../src/words/fr/reader.json'

const look = { language: '', clock: 'reader', dates: 'short', grouping: 'day', severalDays: 'each', line: [] } as unknown as Look

function edition(part: Partial<Look> = {}, more: Partial<Edition> = {}): Edition {
  return {
    zone: 'America/Halifax',
    locale: 'en-GB',
    firstDayOfWeek: 1,
    sources: [],
    from: null,
    to: null,
    isWhole: false,
    look: { ...look, ...part },
    ...more,
  } as unknown as Edition
}

function entry(start: string, end: string, part: Partial<Entry> = {}): Entry {
  return {
    id: start,
    title: 'Boat lab',
    start,
    end,
    allDay: !start.includes('T'),
    plates: ['PW'],
    category: null,
    tags: [],
    isBreak: false,
    ...part,
  } as Entry
}

const lab = entry('2026-11-24T14:00:00-04:00', '2026-11-24T15:30:00-04:00')
const regatta = entry('2026-11-27', '2026-11-30')

describe('how a page talks', () => {
  test('in the reader’s language, unless the edition says another', () => {
    expect(new Speech(edition(), ['de-AT', 'en']).words.today).toBe('Heute')
    expect(new Speech(edition({ language: 'fr' }), ['de-AT']).words.today).toBe('Aujourd’hui')
    expect(new Speech(edition(), ['tlh']).words.today).toBe('Today')
    expect(new Speech(edition(), ['ar']).isRightToLeft).toBe(true)
  })

  test('the clock as the edition says, else as the reader has it', () => {
    expect(new Speech(edition({ clock: 'twentyFour' }), ['en-US']).time('2026-11-24T09:05:00-04:00')).toBe('09:05')
    expect(new Speech(edition({ clock: 'twelve' }), ['en-GB']).time('2026-11-24T14:00:00-04:00')).toMatch(/^2:00\s?pm$/i)
    expect(new Speech(edition(), ['en-US']).time('2026-11-24T14:00:00-04:00')).toMatch(/2:00\s?PM/)
  })

  test('spans, days of what lasts for days, and what is due', () => {
    const speech = new Speech(edition({ clock: 'twentyFour' }), ['en-GB'])
    expect(speech.span(lab)).toBe('14:00–15:30')
    expect(speech.span(entry('2026-11-24T16:00:00-04:00', '2026-11-24T16:00:00-04:00'))).toBe('16:00')
    expect(speech.span(regatta, '2026-11-28')).toBe('2/3')
    expect(speech.span(regatta, '2026-11-27', 'first')).toBe('until Sun 29 Nov')
    const watch = entry('2026-12-08T20:00:00-04:00', '2026-12-10T07:00:00-04:00')
    expect(speech.span(watch, '2026-12-08', 'first')).toBe('20:00, until Thu 10 Dec 07:00')
    expect(speech.span(watch, '2026-12-09', 'first')).toBe('until Thu 10 Dec 07:00')
    expect(speech.when(regatta)).toContain('–')
    expect(speech.stretch('2026-11-23', '2026-11-29')).toMatch(/^23\s?–\s?29 November 2026$/)
  })

  test('the reader’s own time only where it differs, with the day where that differs too', () => {
    const speech = new Speech(edition({ clock: 'twentyFour' }), ['en-GB'])
    expect(speech.ownTime(lab, 'America/Halifax')).toBeNull()
    expect(speech.ownTime(lab, 'Europe/Oslo')).toBe('19:00–20:30')
    expect(speech.ownTime(lab, 'Pacific/Auckland')).toMatch(/25.*07:00–08:30/)
    expect(speech.ownTime(regatta, 'Europe/Oslo')).toBeNull()
  })

  test('every language has every word, with the same places to fill', () => {
    const places = (text: string) => (text.match(/\{\w+\}/g) ?? []).sort()
    for (const words of [de, fr, ar] as Record<string, string>[])
      for (const [name, text] of Object.entries(en)) expect(places(words[name] ?? ''), name).toEqual(places(text))
  })
})

describe('lists', () => {
  const all = [lab, regatta, entry('2026-12-01T14:00:00-04:00', '2026-12-01T15:00:00-04:00', { plates: ['PW', 'SW'] })]
  const keys = (part: Partial<Look>) => groupsOf(all, '2026-11-24', '2026-12-31', edition(part)).map((group) => group.key)

  test('what lasts for days stands on each of them, or on the first that is in sight', () => {
    expect(daysOf(regatta, '2026-11-24', '2026-12-31', 'each')).toEqual(['2026-11-27', '2026-11-28', '2026-11-29'])
    expect(daysOf(regatta, '2026-11-24', '2026-12-31', 'first')).toEqual(['2026-11-27'])
    expect(daysOf(regatta, '2026-11-28', '2026-12-31', 'first')).toEqual(['2026-11-28'])
    expect(daysOf(regatta, '2026-12-01', '2026-12-31', 'each')).toEqual([])
  })

  test('by day, week, month, or by whose it is', () => {
    expect(keys({ grouping: 'day' })).toEqual(['2026-11-24', '2026-11-27', '2026-11-28', '2026-11-29', '2026-12-01'])
    expect(keys({ grouping: 'week' })).toEqual(['2026-11-23', '2026-11-30'])
    expect(keys({ grouping: 'month' })).toEqual(['2026-11', '2026-12'])
    expect(keys({ grouping: 'calendar' })).toEqual(['PW', 'SW'])
    expect(keys({ grouping: 'time' })).toEqual([''])
  })

  test('a reader who narrows keeps what concerns one of their calendars, and breaks', () => {
    const closed = entry('2026-12-21', '2026-12-25', { isBreak: true, plates: [] })
    expect(narrowed([...all, closed], ['SW'], [])).toEqual([all[2], closed])
    expect(narrowed(all, null, [])).toEqual(all)
  })

  test('and what has any of the words that they chose, in the calendars that they chose', () => {
    const trip = entry('2026-12-01T09:00', '2026-12-01T10:00', { tags: ['Away', 'swim'], plates: ['PW'] })
    const exam = entry('2026-12-02T09:00', '2026-12-02T10:00', {
      category: { id: 'x', name: 'Assessment', colour: 'plum' },
      plates: ['SW'],
    })
    const closed = entry('2026-12-21', '2026-12-25', { isBreak: true, plates: [] })
    const some = [...all, trip, exam, closed]
    expect(narrowed(some, null, ['assessment', 'SWIM'])).toEqual([trip, exam, closed])
    expect(narrowed(some, ['SW'], ['assessment', 'SWIM'])).toEqual([exam, closed])
    expect(narrowed(some, null, ['nothing of ours'])).toEqual([closed])
  })
})

describe('the days that a view shows', () => {
  test('a week by its first day, a month, and lists from today', () => {
    const span = (view: Parameters<typeof spanOf>[0], day: string) => spanOf(view, day, '2026-11-24', edition())
    expect(span('week', '2026-11-26')).toMatchObject({ from: '2026-11-23', to: '2026-11-30', after: '2026-12-03' })
    expect(span('month', '2026-12-05')).toMatchObject({ from: '2026-12-01', to: '2027-01-01', before: '2026-11-01' })
    expect(span('list', '2026-11-24')).toMatchObject({ from: '2026-11-24', to: '2027-01-01' })
    expect(span('list', '2026-12-01')).toMatchObject({ from: '2026-12-01', to: '2027-02-01' })
  })

  test('an edition that ends does not promise more', () => {
    expect(spanOf('list', '2026-11-24', '2026-11-24', edition({}, { to: '2026-12-19' }))).toMatchObject({ to: '2026-12-19' })
  })
})

describe('the address', () => {
  beforeEach(() => {
    vi.stubGlobal('location', { search: '?x=1', pathname: '/c/pinewick/juniors' })
    vi.stubGlobal('history', { replaceState: vi.fn() })
  })

  test('keeps what is looked at, so that it can be sent', () => {
    expect(readAddress('?only=PW,SW&view=week&date=2026-11-24')).toEqual({
      only: ['PW', 'SW'],
      about: [],
      view: 'week',
      date: '2026-11-24',
    })
    expect(readAddress('?month=2026-12').date).toBe('2026-12-01')
    expect(readAddress('?date=soon')).toEqual({ about: [], only: null, view: null, date: null })
  })

  test.each([
    ['2026-13-01', '2026-12-01'],
    ['2026-00-00', '2026-01-01'],
    ['2026-02-31', '2026-02-28'],
    ['2028-02-31', '2028-02-29'],
    ['2026-7-4', '2026-07-04'],
    ['2026-99', '2026-12-01'],
    [' 2026-11-24 ', '2026-11-24'],
  ])('a day that there is not, %s, is the nearest that there is', (asked, day) => {
    expect(readAddress(`?date=${encodeURIComponent(asked)}`).date).toBe(day)
  })

  test.each(['', '0', '2026', '2026-11-24T10:00', '24.11.2026', '20261124', '-2026-11-24', '😀'])('%s is no day', (asked) => {
    expect(readAddress(`?date=${encodeURIComponent(asked)}`).date).toBeNull()
  })

  test('what is looked at stands in the address as it was', () => {
    expect(writeAddress({ only: ['PW', 'SW'], about: [], view: 'week', date: null })).toBe('x=1&only=PW,SW&view=week')
  })

  test('words that hold anything at all come back as they were', () => {
    const about = ['Out & about', 'a,b', '100 %', 'größe']
    const text = writeAddress({ only: null, about, view: null, date: null })
    expect(readAddress(`?${text}`).about).toEqual(about)
    expect(readAddress(hrefOf({ only: null, about, view: null, date: null })).about).toEqual(about)
  })

  test('a page opens with what the front page led to, and with nothing that it does not know', () => {
    expect(readOpened('?open=subscribe')).toEqual({ panel: 'subscribe', sheet: null, find: '' })
    expect(readOpened('?open=list&find=boat')).toEqual({ panel: null, sheet: 'list', find: 'boat' })
    expect(readOpened('?open=door')).toEqual({ panel: null, sheet: null, find: '' })
  })
})
