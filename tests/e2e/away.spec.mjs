import { expect } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { chooseCalendar, signIn, test, thisWeek } from './valtro.mjs'

test('when the database stops while saving, the typing stays, and saving works again when it is back', async ({ page }) => {
  const database = (act) => execFileSync('bash', [process.env.VALTRO_TEST_CLUSTER_CONTROL, act], { stdio: 'ignore' })
  await signIn(page)
  const late = await page.context().newPage()
  const reader = await page.context().newPage()
  await page.goto(`/events/new?day=${thisWeek(4)}`)
  await expect(page.locator('.calendar-choice')).toBeVisible()
  await chooseCalendar(page, 'Port Watch')
  await page.getByLabel('Title').fill('Storm watch')
  await expect(page.getByRole('complementary')).toContainText('1 date')
  database('stop')
  try {
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('alert').filter({ hasText: 'The database does not answer' })).toBeVisible()
    await expect(page.getByLabel('Title')).toHaveValue('Storm watch')
    // Who comes now is told why, by a page, and it goes on by itself.
    await late.goto('/plan')
    await expect(late.getByText('The database does not answer')).toBeVisible()
    await reader.goto('/c/pinewick/nobody-asked-for-it-before')
    await expect(reader.getByText('cannot be shown at the moment')).toBeVisible()
  } finally {
    database('start')
  }
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('link', { name: /Storm watch/ })).toBeVisible()
  await expect(late.locator('.plan-head')).toBeVisible()
  await expect(reader.getByText('There is no calendar at this address')).toBeVisible()
})
