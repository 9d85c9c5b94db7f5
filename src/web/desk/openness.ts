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

export function levelsOf(disclosure: Disclosure): { audience: string; detail: Detail }[] {
  return audiences.map(({ key, name }) => ({ audience: name, detail: key === 'editors' ? 'complete' : disclosure[key] }))
}

/** One line for the head of a lane. */
export function sayOpenness(calendar: Calendar): string {
  const words: Record<Detail, string> = {
    nothing: forWhom(calendar.disclosure) === 'members' ? 'Members only' : 'Closed to others',
    times: 'Everyone: times only',
    headline: 'Everyone: headlines',
    complete: 'Everyone sees all',
  }
  return words[calendar.disclosure.everyone]
}

export const detailWords: Record<Detail, string> = {
  nothing: 'Nothing',
  times: 'Times',
  headline: 'Headline',
  complete: 'Complete',
}
