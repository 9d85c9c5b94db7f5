// @vitest-environment happy-dom
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { expect, test } from 'vitest'
import { ZoneChoice } from '../../src/web/desk/ZoneChoice'
import { sayZone, zonesFor } from '../../src/web/desk/zones'
import type { Zone } from '../../src/web/desk/types'

const zone = (name: string, offset: string, country = '', about = ''): Zone => ({ name, offset, country, about })
const zones = [
  zone('America/Halifax', '−04:00', 'CA', 'Atlantic - NS (most areas); PE'),
  zone('America/Sao_Paulo', '−03:00', 'BR', 'Brazil (southeast)'),
  zone('America/Toronto', '−05:00', 'CA', 'Eastern - ON, QC (most areas)'),
  zone('Europe/Berlin', '+01:00', 'DE', 'most of Germany'),
  zone('Europe/Oslo', '+01:00', 'NO'),
  zone('UTC', '+00:00'),
]

test('a zone is said by its city and country, with its offset', () => {
  expect(zones.map(sayZone).slice(1, 3)).toEqual(['Sao Paulo, Brazil (UTC−03:00)', 'Toronto, Canada (UTC−05:00)'])
  expect(sayZone(zones[5]!)).toBe('UTC (UTC+00:00)')
})

test.each([
  ['hali', ['Halifax']],
  ['são paulo', ['Sao_Paulo']],
  ['germany', ['Berlin']],
  ['canada', ['Halifax', 'Toronto']],
  ['atlantic', ['Halifax']],
  ['europe/o', ['Oslo']],
  ['UTC+01', ['Berlin', 'Oslo']],
  ['-04', ['Halifax']],
  ['utc', ['UTC']],
  ['', []],
  ['nowhere', []],
])('“%s” finds %j', (text, cities) => {
  expect(zonesFor(text, zones).map(({ name }) => name.split('/').at(-1))).toEqual(cities)
})

function Field({ start }: { start: string }) {
  const [value, setValue] = useState(start)
  return (
    <>
      <ZoneChoice aria-label="Time zone" value={value} zones={zones} onChange={setValue} />
      <output>{value}</output>
    </>
  )
}

test('it is chosen by the keyboard, and what is left half typed stands or is said to be none', async () => {
  const user = userEvent.setup()
  render(<Field start="America/Halifax" />)
  const field = screen.getByRole<HTMLInputElement>('combobox', { name: 'Time zone' })
  const value = () => screen.getByRole('status').textContent
  expect(field.value).toBe('Halifax, Canada (UTC−04:00)')
  await user.click(field)
  await user.keyboard('canada{ArrowDown}{Enter}')
  expect([value(), field.value]).toEqual(['America/Toronto', 'Toronto, Canada (UTC−05:00)'])
  await user.clear(field)
  await user.keyboard('osl{Tab}')
  expect(value()).toBe('Europe/Oslo')
  // Enter saves the form around it: what was typed is in it by then.
  await user.click(field)
  await user.clear(field)
  await user.keyboard('Nowhere{Enter}')
  expect(value()).toBe('Nowhere')
  await user.click(field)
  await user.clear(field)
  await user.keyboard('Narnia{Tab}')
  expect([value(), field.value]).toEqual(['Narnia', 'Narnia'])
  await user.click(field)
  await user.clear(field)
  await user.keyboard('ber{Escape}{Tab}')
  expect(value()).toBe('Narnia')
  await user.click(field)
  await user.clear(field)
  await user.keyboard('germ')
  await user.click(screen.getByRole('option', { name: /Berlin/ }))
  expect(value()).toBe('Europe/Berlin')
})
