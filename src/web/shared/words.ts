import { sayNumber } from './formats'
import { cloneElement, type ReactElement, type ReactNode } from 'react'

/**
 * The messages of one part of the product in one language, in i18next's form: "{{name}}" is filled in, plurals end in _one,
 * _other, and so on by `count`; "the 3rd" ends in _ordinal_few and so on, by `place`.
 */
export type Messages = Readonly<Record<string, string>>

/** What a message is called by: plurals by their stem. */
export type NameOf<All extends Messages> = StemOf<Extract<keyof All, string>>

type StemOf<Name extends string> = Name extends `${infer Stem}_${'ordinal_' | ''}${Intl.LDMLPluralRule}` ? Stem : Name

export type Values = Readonly<Record<string, string | number | null | undefined>>

export interface Translate<All extends Messages> {
  (name: NameOf<All>, values?: Values): string
  /** With marked stretches: what stands in <1>…</1> becomes the content of the first element, and so on. */
  rich(name: NameOf<All>, values: Values, ...elements: ReactElement<{ children?: ReactNode }>[]): ReactNode[]
}

/** How lists and numbers are written in a language: English ones as the British do, without a comma before "and". */
const localeOf = (language: string) => (language === 'en' ? 'en-GB' : language)

export function translating<All extends Messages>(messages: Messages, language: string): Translate<All> {
  const locale = localeOf(language)
  const cardinal = new Intl.PluralRules(locale)
  const ordinal = new Intl.PluralRules(locale, { type: 'ordinal' })
  const find = (name: string, values: Values = {}) => {
    const { count, place } = values
    const stem = typeof place === 'number' ? `${name}_ordinal` : name
    const rule = typeof place === 'number' ? ordinal.select(place) : typeof count === 'number' ? cardinal.select(count) : ''
    return messages[name] ?? messages[`${stem}_${rule}`] ?? messages[`${stem}_other`] ?? name
  }
  return Object.assign((name: NameOf<All>, values?: Values) => fill(find(name, values), values, locale), {
    rich: (name: NameOf<All>, values: Values, ...elements: ReactElement<{ children?: ReactNode }>[]) =>
      find(name, values)
        .split(/(<\d+>.*?<\/\d+>)/)
        .map((piece, index) => {
          const marked = /^<(\d+)>(.*)<\/\1>$/.exec(piece)
          const element = marked && elements[Number(marked[1]) - 1]
          if (!element) return fill(piece, values, locale)
          return cloneElement(element, { key: index }, fill(marked[2] ?? '', values, locale))
        }),
  })
}

/** A message with what belongs into it; numbers as the language writes them. */
export function fill(message: string, values: Values = {}, locale: string): string {
  return message.replace(/\{\{(\w+)\}\}/g, (_, key: string) => {
    const value = values[key] ?? ''
    return typeof value === 'number' ? sayNumber(value, locale) : value
  })
}

/** "a, b and c". */
export function listed(names: readonly string[], language: string): string {
  return new Intl.ListFormat(localeOf(language), { type: 'conjunction' }).format(names)
}
