import type { Calendar, Detail, Disclosure } from './types'
import { t } from './words'

export type ForWhom = 'editors' | 'members' | 'everyone'

export const forWhomWords: Record<ForWhom, { name: string; about: string }> = {
  editors: { name: t('itsEditorsOnly'), about: t('nobodyElseKnowsThatIt') },
  members: { name: t('members'), about: t('peopleWhoSignInAt') },
  everyone: { name: t('everyoneHead'), about: t('theWholeWorldMayRead') },
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
  { key: 'editors', name: t('editors'), about: t('whoKeepIt') },
  { key: 'members', name: t('members'), about: t('whoSignIn') },
  { key: 'link', name: t('withTheLink'), about: t('whoHaveTheSecret') },
  { key: 'everyone', name: t('everyoneHead'), about: t('theWholeWorld') },
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
    times: t('everyoneTimesOnly'),
    headline: t('everyoneHeadlines'),
    complete: t('everyoneSeesAll'),
  }
  if (disclosure.everyone !== 'nothing') return toEveryone[disclosure.everyone]
  if (disclosure.link !== 'nothing') return t('membersAndTheLink')
  return disclosure.members === 'nothing' ? t('closedToOthers') : t('membersOnly')
}

export const detailWords: Record<Detail, string> = {
  nothing: t('nothing'),
  times: t('detailTimes'),
  headline: t('headline'),
  complete: t('complete'),
}

/** The same within a sentence. */
export const detailSaid: Record<Detail, string> = {
  nothing: t('nothingSaid'),
  times: t('timesSaid'),
  headline: t('headlineSaid'),
  complete: t('completeSaid'),
}
