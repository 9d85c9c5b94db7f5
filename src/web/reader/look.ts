import type { Edition, Look, Palette } from './edition'
import type { Speech } from './speech'

const names: Record<keyof Palette, string[]> = {
  page: ['--paper', '--sheet'],
  grid: ['--hairline'],
  busy: ['--busy'],
  empty: ['--empty', '--shade'],
  today: ['--today', '--spruce-pale'],
  text: ['--ink'],
  soft: ['--ink-soft'],
  accent: ['--lake', '--spruce'],
  onAccent: ['--on-spruce'],
}

type Dress = Pick<Look, 'scheme' | 'light' | 'dark' | 'size' | 'density' | 'corner'>

const nameOf = ({ scheme, light, dark, size, density, corner }: Dress) =>
  JSON.stringify([scheme, light, dark, size, density, corner])

let worn: string | undefined

/** The page came in this look: its style sheet and attributes are the server's. */
export function cameIn(look: Dress): void {
  worn = nameOf(look)
}

/** Gives the page the edition's colours and sizes, unless it has them: nothing is laid out twice. */
function dress(look: Dress): void {
  if (worn === nameOf(look)) return
  worn = nameOf(look)
  const root = document.documentElement
  root.style.colorScheme = { light: 'light', dark: 'dark', reader: root.dataset.scheme ?? 'light dark' }[look.scheme]
  for (const [part, variables] of Object.entries(names) as [keyof Palette, string[]][])
    for (const variable of variables) root.style.setProperty(variable, `light-dark(${look.light[part]}, ${look.dark[part]})`)
  Object.assign(root.dataset, { size: look.size, density: look.density, corner: look.corner })
}

/** The same, with the language and direction in which the page talks. */
export function wear({ look }: Edition, speech: Speech): void {
  const root = document.documentElement
  root.lang = speech.language
  root.dir = speech.isRightToLeft ? 'rtl' : 'ltr'
  root.classList.add('is-alive')
  dress(look)
}
