import { expect, test } from 'vitest'
import { rememberAct, takeLastAct } from '../../src/web/desk/changes/lastActs'

test('what was done last is taken back first, and what was taken back otherwise not again', () => {
  rememberAct('/events', { id: 'event', actId: 'made' })
  rememberAct('/events/chosen', { actId: 'moved', events: 3 })
  rememberAct('/events/event/changes', { actId: 'changed' })
  rememberAct('/calendars', { id: 'calendar' })
  rememberAct('/events/event/changes', { actId: '00000000-0000-0000-0000-000000000000' })

  rememberAct('/acts/moved/undo', { actId: 'undoing' })

  expect([takeLastAct(), takeLastAct(), takeLastAct()]).toEqual(['changed', 'made', undefined])
})
