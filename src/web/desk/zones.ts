import { placeOfZone } from '../shared/days'
import { language } from './language'
import type { Zone } from './types'

const countries = new Intl.DisplayNames(language, { type: 'region' })
const inEnglish = new Intl.DisplayNames('en', { type: 'region' })

const countryOf = ({ country }: Zone, names = countries) => (country === '' ? '' : (names.of(country) ?? ''))

/** "Halifax, Canada (UTC−04:00)". */
export function sayZone(zone: Zone): string {
  const place = [placeOfZone(zone.name), countryOf(zone)].filter((one) => one !== '').join(', ')
  return `${place} (UTC${zone.offset})`
}

const MOST = 8

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').replaceAll('_', ' ').toLowerCase()

/** The zones that a text means, by city, country, part of a country or offset; cities first. */
export function zonesFor(text: string, zones: Zone[]): Zone[] {
  const wanted = plain(
    text
      .trim()
      .replace(/^utc(?=.)/i, '')
      .replace('-', '−'),
  )
  if (wanted === '') return []
  const rank = (zone: Zone) => {
    const city = plain(placeOfZone(zone.name))
    if (city.startsWith(wanted)) return 0
    if (city.includes(wanted) || plain(zone.name).includes(wanted)) return 1
    if ([countryOf(zone), countryOf(zone, inEnglish)].some((name) => plain(name).startsWith(wanted))) return 2
    if (plain(zone.about).includes(wanted) || zone.offset.startsWith(wanted)) return 3
    return null
  }
  return zones
    .flatMap((zone) => {
      const place = rank(zone)
      return place === null ? [] : [{ zone, place }]
    })
    .sort((one, other) => one.place - other.place)
    .slice(0, MOST)
    .map(({ zone }) => zone)
}
