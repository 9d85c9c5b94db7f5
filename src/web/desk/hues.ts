import type { Colour } from './types'
import { t } from './words'

const names: Record<string, string> = {
  harbour: t('hueHarbour'),
  timber: t('hueTimber'),
  heather: t('hueHeather'),
  kelp: t('hueKelp'),
  madder: t('hueMadder'),
  moss: t('hueMoss'),
  slate: t('hueSlate'),
  fjord: t('hueFjord'),
  plum: t('huePlum'),
  navy: t('hueNavy'),
  peat: t('huePeat'),
  umber: t('hueUmber'),
}

/** What a colour of calendars and categories is called on screen. */
export function hueName(name: string): string {
  return names[name] ?? name
}

/** The first colour that none of some has yet; the first of all where each is taken. */
export function freeColour(colours: Colour[], taken: readonly { colour: string }[]): Colour | undefined {
  return colours.find(({ name }) => taken.every((one) => one.colour !== name)) ?? colours[0]
}
