import type { Calendar, Detail, Disclosure } from './api'

export type ForWhom = 'editors' | 'members' | 'everyone'

export const forWhomWords: Record<ForWhom, { name: string; about: string }> = {
  editors: { name: 'Its editors only', about: 'Nobody else knows that it exists.' },
  members: { name: 'Members', about: 'People who sign in at your organisation see all of it.' },
  everyone: { name: 'Everyone', about: 'The whole world may read it: page, embed and feed.' },
}

export const disclosures: Record<ForWhom, Disclosure> = {
  editors: { members: 'nothing', link: 'nothing', everyone: 'nothing' },
  members: { members: 'complete', link: 'nothing', everyone: 'nothing' },
  everyone: { members: 'complete', link: 'complete', everyone: 'complete' },
}

export function forWhom(disclosure: Disclosure): ForWhom {
  if (disclosure.everyone !== 'nothing') return 'everyone'
  return disclosure.members === 'nothing' ? 'editors' : 'members'
}

export const audiences = [
  { key: 'editors', name: 'Editors', about: 'who keep it' },
  { key: 'members', name: 'Members', about: 'who sign in' },
  { key: 'link', name: 'With the link', about: 'who have the secret' },
  { key: 'everyone', name: 'Everyone', about: 'the whole world' },
] as const

const order: Detail[] = ['nothing', 'times', 'headline', 'complete']
const wideness = ['members', 'link', 'everyone'] as const

/** The table with another level for one audience; the others go along as far as they must. */
export function tableWith(table: Disclosure, audience: (typeof wideness)[number], detail: Detail): Disclosure {
  const rank = (one: Detail) => order.indexOf(one)
  const place = wideness.indexOf(audience)
  const level = (key: (typeof wideness)[number]): Detail => {
    const here = wideness.indexOf(key)
    if (here === place) return detail
    if (here < place) return rank(table[key]) < rank(detail) ? detail : table[key]
    return rank(table[key]) > rank(detail) ? detail : table[key]
  }
  return { members: level('members'), link: level('link'), everyone: level('everyone') }
}

/** Whether a level shows more than another. */
export function isMore(one: Detail, other: Detail): boolean {
  return order.indexOf(one) > order.indexOf(other)
}

export function levelsOf(disclosure: Disclosure): { audience: string; detail: Detail }[] {
  return audiences.map(({ key, name }) => ({ audience: name, detail: key === 'editors' ? 'complete' : disclosure[key] }))
}

/** One line for the head of a lane. */
export function sayOpenness(calendar: Calendar): string {
  const { disclosure } = calendar
  const toEveryone: Record<Exclude<Detail, 'nothing'>, string> = {
    times: 'Everyone: times only',
    headline: 'Everyone: headlines',
    complete: 'Everyone sees all',
  }
  if (disclosure.everyone !== 'nothing') return toEveryone[disclosure.everyone]
  if (disclosure.link !== 'nothing') return 'Members and the link'
  return disclosure.members === 'nothing' ? 'Closed to others' : 'Members only'
}

export const detailWords: Record<Detail, string> = {
  nothing: 'Nothing',
  times: 'Times',
  headline: 'Headline',
  complete: 'Complete',
}
