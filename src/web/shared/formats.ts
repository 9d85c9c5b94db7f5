/**
 * Formatters of the language, each made once: they are slow to make, and large beside what they write. Where the server paints pages
 * of all editions there may be many kinds; then it begins anew.
 */
const MOST = 300

const dates = new Map<string, Intl.DateTimeFormat>()
const numbers = new Map<string, Intl.NumberFormat>()

function known<T>(all: Map<string, T>, key: string, make: () => T): T {
  let one = all.get(key)
  if (!one) {
    if (all.size >= MOST) all.clear()
    one = make()
    all.set(key, one)
  }
  return one
}

export function dateFormat(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  return known(dates, locale + JSON.stringify(options), () => new Intl.DateTimeFormat(locale, options))
}

/** A number in the digits and with the separators of a locale. */
export function sayNumber(number: number, locale: string): string {
  return known(numbers, locale, () => new Intl.NumberFormat(locale)).format(number)
}
