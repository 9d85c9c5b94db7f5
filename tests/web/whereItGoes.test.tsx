// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { describe, expect, test } from 'vitest'
import type { Destination, Destinations } from '../../src/web/desk/types'
import { WhereItGoes } from '../../src/web/desk/event/WhereItGoes'
import { answer, port, show, staff } from './deskWorld'

const juniors: Destination = {
  id: 'juniors',
  calendarId: null,
  name: 'Juniors for families',
  audience: 'everyone',
  detail: 'complete',
  was: 'complete',
  mayEdit: true,
  besides: [],
}
const own: Destination = { ...juniors, id: 'own', calendarId: port.id, name: 'Port Watch' }

const open = (destinations: Partial<Destinations>, { isNew = false, shownOn = [port] } = {}) => {
  answer({})
  show(
    '/event',
    <WhereItGoes
      destinations={{ editions: [], unnamed: 0, whenItGoesOut: false, remarks: [], ...destinations }}
      traced={null}
      isNew={isNew}
      shownOn={shownOn}
    />,
  )
}
const lines = () => screen.queryAllByRole('listitem').map((line) => line.textContent)
const leadsTo = (name: string) => screen.getByRole('link', { name }).getAttribute('href')

describe('where an event goes', () => {
  test('is said edition by edition, with the way to each that the person keeps', () => {
    open({
      editions: [
        juniors,
        own,
        {
          ...juniors,
          id: 'staff',
          name: 'For the staff',
          audience: 'members',
          detail: 'headline',
          was: 'headline',
          mayEdit: false,
          besides: ['from set-up to clear-away', 'reminds: 1 day before'],
        },
      ],
    })
    expect(lines()).toEqual([
      'Juniors for families for everyoneComplete',
      'Port Watch for everyoneComplete',
      'For the staff for members, from set-up to clear-away, reminds: 1 day beforeHeadline',
    ])
    expect([leadsTo('Juniors for families'), leadsTo('Port Watch')]).toEqual([
      '/editions/juniors',
      `/calendars/${port.id}/publishing`,
    ])
    expect(screen.queryByRole('link', { name: 'For the staff' })).toBeNull()
    expect(screen.getByText(/Within seconds/)).toBeTruthy()
  })

  test('names what it leaves, what gets it newly, and what gets more of it', () => {
    open({
      editions: [
        { ...juniors, detail: 'nothing' },
        { ...juniors, id: 'b', name: 'Newcomers', was: 'nothing' },
        { ...juniors, id: 'c', name: 'Busy times', was: 'times' },
      ],
    })
    expect(screen.getByText(/It leaves/).textContent).toBe('It leaves Juniors for families, for everyone.')
    expect(lines()).toEqual(['Newcomers for everyoneComplete newly', 'Busy times for everyoneComplete more than now'])
  })

  test('a new one is new everywhere, and that is not said of each', () => {
    open({ editions: [{ ...juniors, was: 'nothing' }] }, { isNew: true })
    expect(lines()).toEqual(['Juniors for families for everyoneComplete'])
  })

  test('of a draft it is said for when it goes out', () => {
    open({ editions: [{ ...juniors, was: 'nothing' }], whenItGoesOut: true })
    expect(screen.getByText(/When it goes out, to the pages/)).toBeTruthy()
    expect(lines()).toEqual(['Juniors for families for everyoneComplete'])
  })

  test('others’ editions are counted', () => {
    open({ editions: [juniors], unnamed: 2 })
    expect(screen.getByText(/2 more editions have it/)).toBeTruthy()
  })

  test('that windows and filters leave it out of everything is said, and that its calendar is closed', () => {
    open({})
    expect(screen.getByText('It is in no edition: their windows or filters leave it out.')).toBeTruthy()
    cleanup()
    open({}, { shownOn: [staff] })
    expect(screen.getByText(/It stays inside on Staff room/)).toBeTruthy()
    expect(screen.queryByText(/It is in no edition/)).toBeNull()
  })
})
