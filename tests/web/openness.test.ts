// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import type { Calendar, Detail, Disclosure } from '../../src/web/desk/types'
import { isMore, sayOpenness, tableWith } from '../../src/web/desk/openness'

const levels: Detail[] = ['nothing', 'times', 'headline', 'complete']
const audiences = ['members', 'link', 'everyone'] as const

function tables(): Disclosure[] {
  return levels.flatMap((members) =>
    levels.flatMap((link) =>
      levels
        .filter((everyone) => !isMore(link, members) && !isMore(everyone, link))
        .map((everyone) => ({ members, link, everyone })),
    ),
  )
}

describe('a table with one cell changed', () => {
  it('stays one, whatever it was and whichever cell is changed to whatever', () => {
    for (const table of tables())
      for (const audience of audiences)
        for (const level of levels) {
          const changed = tableWith(table, audience, level)
          expect(changed[audience]).toBe(level)
          expect(isMore(changed.link, changed.members) || isMore(changed.everyone, changed.link)).toBe(false)
        }
  })

  it('changes others only as far as it must', () => {
    const table: Disclosure = { members: 'headline', link: 'times', everyone: 'nothing' }
    expect(tableWith(table, 'everyone', 'complete')).toEqual({ members: 'complete', link: 'complete', everyone: 'complete' })
    expect(tableWith(table, 'members', 'nothing')).toEqual({ members: 'nothing', link: 'nothing', everyone: 'nothing' })
    expect(tableWith(table, 'link', 'headline')).toEqual({ members: 'headline', link: 'headline', everyone: 'nothing' })
    expect(tableWith(table, 'everyone', 'times')).toEqual({ members: 'headline', link: 'times', everyone: 'times' })
  })
})

describe('how open a calendar is, in a line', () => {
  const say = (members: Detail, link: Detail, everyone: Detail) =>
    sayOpenness({ disclosure: { members, link, everyone } } as Calendar)

  it('names the widest audience that sees anything', () => {
    expect(say('nothing', 'nothing', 'nothing')).toBe('Closed to others')
    expect(say('headline', 'nothing', 'nothing')).toBe('Members only')
    expect(say('complete', 'times', 'nothing')).toBe('Members and the link')
    expect(say('complete', 'complete', 'headline')).toBe('Everyone: headlines')
  })
})
