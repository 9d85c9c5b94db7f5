import { execFile } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { expect } from '@playwright/test'
import { createDAVClient } from 'tsdav'
import { expectAccessible, makeCalendar, makeEvents, signIn, test, thisWeek } from './valtro.mjs'

const run = promisify(execFile)
const script = fileURLToPath(new URL('../foreign/caldav_read.py', import.meta.url))

/** By a client library of Python's. */
async function readByPython(address, password, calendar) {
  const { stdout } = await run('/usr/bin/python3', [script, address, 'ada@pinewick.example', password, calendar, thisWeek(0), thisWeek(7)])
  return JSON.parse(stdout)
}

test('a member’s phone reads what they see by a password of its own, by two clients of others, and no more once it is withdrawn', async ({
  page,
}) => {
  await signIn(page)
  const calendar = await makeCalendar(page)
  await makeEvents(page, calendar, ['Hull check'], 2)
  await makeEvents(page, calendar, ['Rigging'], 30)
  await page.goto('/account')
  await page.getByLabel('Which program, on which device').fill('My phone')
  await page.getByRole('button', { name: 'Make a password for it' }).click()
  const password = await page.getByLabel('Password', { exact: true }).inputValue()
  const address = await page.getByLabel('Address of the server').inputValue()
  await expectAccessible(page, 'a password for a program')
  await expect(page.getByText('never used')).toBeVisible()

  const read = await readByPython(address, password, calendar.name)
  expect(read.calendars).toContain(calendar.name)
  expect(read).toMatchObject({ found: ['Hull check'], all: 2, synced: 2, changedSince: 0, busy: 1 })
  expect(read.refused).toEqual(['AuthorizationError', 'AuthorizationError'])
  await page.reload()
  await expect(page.getByText('last used')).toBeVisible()

  const client = await createDAVClient({
    serverUrl: new URL(address).origin,
    credentials: { username: 'ada@pinewick.example', password },
    authMethod: 'Basic',
    defaultAccountType: 'caldav',
  })
  const calendars = await client.fetchCalendars()
  const mine = calendars.find((one) => one.displayName === calendar.name)
  const objects = await client.fetchCalendarObjects({ calendar: mine })
  expect(objects.map((one) => /SUMMARY:(.*)\r\n/.exec(one.data)?.[1]).sort()).toEqual(['Hull check', 'Rigging'])
  const week = await client.fetchCalendarObjects({
    calendar: mine,
    timeRange: { start: `${thisWeek(0)}T00:00:00Z`, end: `${thisWeek(7)}T00:00:00Z` },
  })
  expect(week).toHaveLength(1)
  const refused = await client.deleteCalendarObject({ calendarObject: objects[0] })
  expect(refused.status).toBe(403)
  // What is another since it asked last, and nothing else.
  const before = await client.syncCollection({ url: mine.url, props: { 'd:getetag': {} }, syncLevel: 1 })
  expect(before.filter((one) => one.href?.endsWith('.ics'))).toHaveLength(2)
  const token = before[0].raw.multistatus.syncToken
  await makeEvents(page, calendar, ['Sails'], 4)
  const after = await client.syncCollection({ url: mine.url, props: { 'd:getetag': {} }, syncLevel: 1, syncToken: token })
  expect(after.filter((one) => one.href?.endsWith('.ics'))).toHaveLength(1)

  await page.getByRole('button', { name: 'Withdraw the password of My phone' }).click()
  await expect(page.getByText('last used')).toHaveCount(0)
  await expect(readByPython(address, password, calendar.name)).rejects.toThrow(/AuthorizationError|Unauthorized/)
})
