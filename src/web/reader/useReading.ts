import { useCallback, useMemo, useState } from 'react'
import { addDays, addMonths, monthOf, weekOf, type Day } from '../shared/days'
import { hrefOf, nothingAsked, readAddress, recallOnly, rememberOnly, writeAddress } from './address'
import {
  entriesOf,
  slugsOf,
  sourceNamed,
  type Edition,
  type Entry,
  type PageData,
  type PartName,
  type Parts,
  type View,
} from './edition'

/**
 * What the reader looks at: a view of some days, of the calendars that concern them. All of it stands in the address.
 * Until the page is alive it is what was painted.
 */
export function useReading(data: PageData, edition: Edition, parts: Parts, today: Day, isAlive: boolean) {
  const { painted, addresses } = data
  const asked = useMemo(() => (isAlive ? readAddress() : nothingAsked), [isAlive])
  const remembered = useMemo(() => (isAlive ? recallOnly(addresses.base) : null), [isAlive, addresses.base])
  const [chosen, choose] = useState<{ view?: View; day?: Day; only?: string[] | null; about?: string[] }>({})
  const askedView = asked.view && edition.look.views.includes(asked.view) ? asked.view : null
  const view = chosen.view ?? askedView ?? painted.view
  const usual = painted.day === painted.today ? today : painted.day
  const day = clamp(chosen.day ?? asked.date ?? usual, edition)
  const named = chosen.only === undefined ? (asked.only ?? remembered) : chosen.only

  // A calendar may have left the edition since somebody chose it.
  const only = useMemo(() => {
    const known = named?.map((name) => sourceNamed(edition, name)).filter((source) => source?.canBeChosen) ?? []
    return known.length > 0 ? [...new Set(known.map((source) => source?.plate ?? ''))] : null
  }, [named, edition])

  const wanted = useMemo(() => partsOf(view, day, edition), [view, day, edition])
  const all = useMemo(() => entriesOf(parts, wanted), [parts, wanted])
  const about = chosen.about ?? asked.about
  const entries = useMemo(() => narrowed(all, only, about), [all, only, about])

  /** How an address says something else than what is shown: so that links lead there also without a script. */
  const stateOf = useCallback(
    (next: { only?: string[] | null; about?: string[]; view?: View; date?: Day }) => ({
      about: next.about ?? about,
      only: next.only === undefined ? only && slugsOf(edition, only) : next.only,
      view: (next.view ?? view) === edition.look.view ? null : (next.view ?? view),
      date: (next.date ?? day) === today ? null : (next.date ?? day),
    }),
    [only, about, view, day, today, edition],
  )

  const linkTo = useCallback(
    (next: { view?: View; date?: Day }) =>
      hrefOf(stateOf(next.date === undefined ? next : { ...next, date: clamp(next.date, edition) })),
    [stateOf, edition],
  )

  return {
    today,
    view,
    day,
    only,
    about,
    /** What can be chosen of the entries in sight before they were narrowed to some words. */
    words: useMemo(() => wordsOf(narrowed(all, only, []), about), [all, only, about]),
    wanted,
    entries,
    span: spanOf(view, day, today, edition),
    linkTo,
    show: (next: View) => {
      choose((before) => ({ ...before, view: next }))
      writeAddress(stateOf({ view: next }))
    },
    goTo: (next: Day) => {
      const there = clamp(next, edition)
      choose((before) => ({ ...before, day: there }))
      writeAddress(stateOf({ date: there }))
    },
    choose: (next: string[] | null) => {
      const slugs = next && slugsOf(edition, next)
      choose((before) => ({ ...before, only: slugs }))
      rememberOnly(addresses.base, slugs)
      writeAddress(stateOf({ only: slugs }))
    },
    narrow: (next: string[]) => {
      choose((before) => ({ ...before, about: next }))
      writeAddress(stateOf({ about: next }))
    },
  }
}

/** Breaks concern everybody. */
export function narrowed(entries: Entry[], only: string[] | null, about: string[]): Entry[] {
  const asked = new Set(about.map((word) => word.toLowerCase()))
  return entries.filter(
    (entry) =>
      entry.isBreak ||
      ((only === null || entry.plates.some((plate) => only.includes(plate))) &&
        (asked.size === 0 || namesOf(entry).some((name) => asked.has(name.toLowerCase())))),
  )
}

const namesOf = (entry: Entry): string[] => [...(entry.category ? [entry.category.name] : []), ...entry.tags]

/** Categories first, then tags, those that most entries have before others; what is chosen stays in sight. */
function wordsOf(entries: Entry[], chosen: string[]): { word: string; colour: string | null }[] {
  const found = new Map<string, { word: string; colour: string | null; count: number }>()
  for (const entry of entries)
    for (const word of namesOf(entry)) {
      const colour = entry.category?.name === word ? entry.category.colour : null
      const before = found.get(word.toLowerCase())
      found.set(word.toLowerCase(), {
        word: before?.word ?? word,
        colour: before?.colour ?? colour,
        count: (before?.count ?? 0) + 1,
      })
    }
  for (const word of chosen) if (!found.has(word.toLowerCase())) found.set(word.toLowerCase(), { word, colour: null, count: 1e6 })
  return [...found.values()]
    .sort(
      (one, other) => Number(!one.colour) - Number(!other.colour) || other.count - one.count || (one.word < other.word ? -1 : 1),
    )
    .slice(0, MOST_WORDS)
}

const MOST_WORDS = 14

/** What the server tells of, less a month at either end, so that every view has its neighbours. */
const FIRST_DAY = '1900-02-01'
const LAST_DAY = '2199-11-30'

function clamp(day: Day, edition: Edition): Day {
  if (edition.from && day < edition.from) return edition.from
  if (edition.to && day >= edition.to) return addDays(edition.to, -1)
  return day < FIRST_DAY ? FIRST_DAY : day > LAST_DAY ? LAST_DAY : day
}

/** The days that a view shows, and how far a step leads. */
export function spanOf(view: View, day: Day, today: Day, edition: Edition): { from: Day; to: Day; before: Day; after: Day } {
  const month = monthOf(day)
  switch (view) {
    case 'day':
      return { from: day, to: addDays(day, 1), before: addDays(day, -1), after: addDays(day, 1) }
    case 'week': {
      const first = weekOf(day, edition.firstDayOfWeek)
      return { from: first, to: addDays(first, 7), before: addDays(day, -7), after: addDays(day, 7) }
    }
    case 'month':
    case 'smallMonth':
      return {
        from: `${month}-01`,
        to: `${addMonths(month, 1)}-01`,
        before: `${addMonths(month, -1)}-01`,
        after: `${addMonths(month, 1)}-01`,
      }
    default: {
      // Lists begin today, or with the month that somebody went to, and reach to the end of the next one.
      const from = edition.isWhole
        ? (edition.from ?? today)
        : month === monthOf(today) && day >= today
          ? day > today
            ? day
            : today
          : `${month}-01`
      const end = edition.isWhole ? (edition.to ?? addDays(from, 1_000)) : `${addMonths(month, 2)}-01`
      return {
        from,
        to: edition.to && edition.to < end ? edition.to : end,
        before: `${addMonths(month, -1)}-01`,
        after: `${addMonths(month, 1)}-01`,
      }
    }
  }
}

function partsOf(view: View, day: Day, edition: Edition): PartName[] {
  if (edition.isWhole) return ['all']
  const month = monthOf(day)
  if (view === 'list' || view === 'cards') return [month, addMonths(month, 1)]
  return [month]
}
