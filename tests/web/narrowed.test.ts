// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { narrowed } from '../../src/web/desk/plan/PlanFilters'
import { noFilter } from '../../src/web/desk/plan/usePlanAddress'
import type { Occurrence } from '../../src/web/desk/types'

const date = (title: string, said: Partial<Occurrence>) =>
  ({
    title,
    kind: 'event',
    certainty: 'certain',
    category: null,
    tags: [],
    place: '',
    people: [],
    isMine: false,
    ...said,
  }) as Occurrence

const essay = date('Essay', { kind: 'deadline', tags: ['paper'] })
const exam = date('Exam', { category: { id: 'a', name: 'Assessment', colour: 'madder' }, isMine: true, people: ['Bo'] })
const walk = date('Walk', { certainty: 'tentative', place: 'Grey Point' })
const all = [essay, exam, walk]

test('the plan is narrowed by category, by what is due, and by what is not certain yet', () => {
  const by = (filter: Partial<typeof noFilter>) => narrowed(all, { ...noFilter, ...filter }).map((one) => one.title)
  expect(by({})).toEqual(['Essay', 'Exam', 'Walk'])
  expect(by({ category: 'Assessment' })).toEqual(['Exam'])
  expect(by({ category: ':due' })).toEqual(['Essay'])
  expect(by({ category: ':tentative' })).toEqual(['Walk'])
  expect(by({ category: ':due', tag: 'poster' })).toEqual([])
  expect(by({ person: 'me' })).toEqual(['Exam'])
  expect(by({ person: 'Bo', place: 'Grey Point' })).toEqual([])
})
