// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { expect, test } from 'vitest'
import { call, rememberToken } from '../../src/web/desk/api'
import { Problem } from '../../src/web/desk/Problem'
import { useSignInAgain } from '../../src/web/desk/session/useSignInAgain'
import { answer, sent, session, show } from './deskWorld'

const ended = new Problem(401, '/problems/sign-in-needed', 'Sign in first.')

/** A desk whose session can end: what is asked then is refused until somebody has signed in again. */
function desk(mine: typeof session | null = null) {
  let isEnded = true
  const asked = answer({
    'GET /session': () => {
      const now = isEnded ? (mine ?? { ...session, person: null, organisation: null }) : session
      // With the token of the session that was begun in another window all is right again.
      if (mine === session) isEnded = false
      return now
    },
    'POST /session': ({ password }: { password: string }) => {
      if (password !== 'right') return new Problem(401, '/problems/wrong-sign-in', 'E-mail address or password is wrong.')
      isEnded = false
      return session
    },
    'GET /lists': () => (isEnded ? ended : { ok: true }),
    'POST /groups': () => (isEnded ? ended : { id: 'g' }),
  })
  const outcome: string[] = []
  const tell = (what: string, act: Promise<unknown>) =>
    void act.then(
      () => outcome.push(`${what} done`),
      () => outcome.push(`${what} refused`),
    )
  rememberToken(session)
  const { user } = show('/', <Typing ask={tell} />)
  return { asked, user, outcome }
}

function Typing({ ask }: { ask: (what: string, act: Promise<unknown>) => void }) {
  const [typed, setTyped] = useState('')
  const again = useSignInAgain(session.person)
  return (
    <>
      {again}
      <input aria-label="Name" value={typed} onChange={(event) => setTyped(event.target.value)} />
      <button onClick={() => ask('save', call('POST', '/groups', { name: typed, calendars: [], version: null } as never))}>
        Save
      </button>
      <button onClick={() => ask('look', call('GET', '/lists'))}>Look</button>
    </>
  )
}

test('a save that finds the session ended waits for the password, and is made then', async () => {
  const { asked, user, outcome } = desk()
  await user.type(screen.getByLabelText('Name'), 'Juniors')
  await user.click(screen.getByText('Save'))
  await user.type(await screen.findByLabelText('Password of Ada Brook'), 'wrong{Enter}')
  expect((await screen.findByRole('alert')).textContent).toContain('wrong')
  await user.clear(screen.getByLabelText('Password of Ada Brook'))
  await user.type(screen.getByLabelText('Password of Ada Brook'), 'right{Enter}')
  await waitFor(() => expect(outcome).toEqual(['save done']))
  expect(sent(asked, 'POST /session').at(-1)).toEqual({ email: 'ada@pinewick.example', password: 'right' })
  expect(screen.queryByRole('dialog')).toBeNull()
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Juniors')
})

test('all that finds it ended asks once; who would rather not is asked again by what they do, not by what looks', async () => {
  const { user, outcome } = desk()
  await user.click(screen.getByText('Look'))
  await user.click(screen.getByText('Save'))
  await user.click(await screen.findByText('Not now'))
  await waitFor(() => expect(outcome.toSorted()).toEqual(['look refused', 'save refused']))
  await user.click(screen.getByText('Look'))
  await waitFor(() => expect(outcome).toHaveLength(3))
  expect(screen.queryByRole('dialog')).toBeNull()
  await user.click(screen.getByText('Save'))
  expect(await screen.findByRole('dialog', { name: 'Your session has ended' })).toBeTruthy()
  await user.click(screen.getByText('Not now'))
})

test('who has signed in again in another window is not asked', async () => {
  const same = desk(session)
  await same.user.click(screen.getByText('Save'))
  await waitFor(() => expect(same.outcome).toEqual(['save done']))
  expect(sent(same.asked, 'POST /groups')).toHaveLength(2)
})

test('where somebody else is signed in by now, nothing is done in their name', async () => {
  const other = desk({ ...session, person: { ...session.person!, id: 'bo', email: 'bo@pinewick.example' } })
  await other.user.click(screen.getByText('Save'))
  await waitFor(() => expect(other.outcome).toEqual(['save refused']))
  expect(screen.queryByRole('dialog')).toBeNull()
})
