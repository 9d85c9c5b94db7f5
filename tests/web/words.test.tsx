// @vitest-environment happy-dom
import { render } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import { chosen } from '../../src/web/desk/language'
import { listed, translating } from '../../src/web/shared/words'

const messages = {
  saved: '“{{name}}” is saved.',
  dates_one: '1 date',
  dates_other: '{{count}} dates',
  nth_ordinal_one: 'the {{place}}st',
  nth_ordinal_two: 'the {{place}}nd',
  nth_ordinal_few: 'the {{place}}rd',
  nth_ordinal_other: 'the {{place}}th',
  open: '<1>{{name}}</1> is open to <2>everyone</2>.',
}
const t = translating<typeof messages>(messages, 'en')

describe('messages', () => {
  test('are filled in', () => expect(t('saved', { name: 'Boat {{lab}}' })).toBe('“Boat {{lab}}” is saved.'))

  test.each([
    [0, '0 dates'],
    [1, '1 date'],
    [21, '21 dates'],
    [1200, '1,200 dates'],
  ])('%i have their plural', (count, said) => expect(t('dates', { count })).toBe(said))

  test.each([
    [1, 'the 1st'],
    [2, 'the 2nd'],
    [3, 'the 3rd'],
    [11, 'the 11th'],
    [23, 'the 23rd'],
  ])('%i has its place', (place, said) => expect(t('nth', { place })).toBe(said))

  test('a language with one form for every place needs no more than that one', () =>
    expect(translating<{ nth_ordinal_other: string }>({ nth_ordinal_other: '{{place}}.' }, 'de')('nth', { place: 3 })).toBe('3.'))

  test('marked stretches become elements, and what people typed never does', () => {
    const { container } = render(<p>{t.rich('open', { name: '<2>Lab</2>' }, <b />, <i />)}</p>)
    expect(container.innerHTML).toBe('<p><b>&lt;2&gt;Lab&lt;/2&gt;</b> is open to <i>everyone</i>.</p>')
  })

  test('lists are joined as the language does', () => {
    expect(listed(['Port', 'Starboard', 'Crew'], 'en')).toBe('Port, Starboard and Crew')
    expect(listed(['Port', 'Starboard', 'Crew'], 'de')).toBe('Port, Starboard und Crew')
  })
})

describe('the language that the server’s cookie names', () => {
  test.each([
    ['valtro-language=c%3Den%7Cuic%3Dde', 'de'],
    ['a=b; valtro-language=c=en|uic=en; d=e', 'en'],
    ['valtro-language=c%3Den%7Cuic%3Dtlh', undefined],
    ['valtro-language=; uic=de', undefined],
    ['not-valtro-language=uic%3Dde', undefined],
    ['', undefined],
  ])('%s', (cookies, language) => expect(chosen(cookies)).toBe(language))
})
