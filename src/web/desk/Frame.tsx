import { useState, type ComponentType } from 'react'
import Dropdown from 'react-bootstrap/Dropdown'
import { Link, NavLink, Outlet, useNavigate } from 'react-router'
import { call } from './api'
import { ChangesProvider } from './changes/Changes'
import { useRefresh, useSession, useSignOffCount } from './queries'
import { SeeAsChoice, SeenAsNotice } from './SeeAs'
import { seeAs, useSeenAs } from './seeAs'
import { ChooseOrganisation } from './session/ChooseOrganisation'
import { SignIn } from './session/SignIn'
import { useToast } from './Toasts'
import { useKeys } from './useKeys'
import { useNews } from './useNews'
import { FailingNotice } from './work/FailingNotice'

/** The bar above every screen, and the sign-in in front of them. */
export function Frame() {
  const session = useSession()
  if (session.isPending) return <p className="page">Opening Valtro …</p>
  if (session.isError)
    return (
      <main className="page">
        <h1>Valtro cannot be reached</h1>
        <p>{session.error.message}</p>
        <button type="button" className="btn btn-outline-ink" onClick={() => session.refetch()}>
          Try again
        </button>
      </main>
    )
  if (!session.data.person) return <SignIn />
  return session.data.organisation ? <SignedIn /> : <ChooseOrganisation organisations={session.data.organisations} />
}

function SignedIn() {
  const session = useSession().data
  const navigate = useNavigate()
  const refresh = useRefresh()
  const toast = useToast()
  const [help, setHelp] = useState<{ Keys: ComponentType<{ onHide: () => void }> } | null>(null)
  const showKeys = () =>
    import('./KeysHelp').then(
      ({ KeysHelp }) => setHelp({ Keys: KeysHelp }),
      () => toast('The list of keys could not be loaded. Look at your connection, and try again.'),
    )
  useKeys({ '?': () => void showKeys() })
  const person = session?.person
  const isOwnView = useSeenAs() === null
  useNews(isOwnView && person?.maySignOff === true)
  const waiting = useSignOffCount(isOwnView && person?.maySignOff === true).data?.toDecide ?? 0
  if (!person || !session.organisation) return null
  const others = session.organisations.filter((one) => one.slug !== session.organisation?.slug)
  const initials = person.name
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 2)
  const signOut = async () => {
    await call('DELETE', '/session')
    seeAs(null)
    await navigate('/plan')
    await refresh.forgetAll()
  }
  return (
    <>
      <a className="skip-link" href="#content">
        To the content
      </a>
      <header className="bar">
        <NavLink to="/plan" className="brand" aria-label="Valtro, to the plan">
          <img src="/mark.svg" alt="" width="24" height="24" />
          <span className="wordmark">valtro</span>
        </NavLink>
        <nav aria-label="Screens">
          <NavLink to="/plan">Plan</NavLink>
          <NavLink to="/calendars">Calendars</NavLink>
          <NavLink to="/editions">Editions</NavLink>
          <NavLink to="/year">Year plan</NavLink>
          {isOwnView && person.maySignOff && (
            <NavLink to="/sign-off">
              Sign-off
              {waiting > 0 && (
                <span className="waiting-count">
                  {waiting}
                  <span className="visually-hidden"> {waiting === 1 ? 'waits' : 'wait'}</span>
                </span>
              )}
            </NavLink>
          )}
          {person.isAdministrator && <NavLink to="/people">People</NavLink>}
        </nav>
        <SeeAsChoice />
        <span className="organisation">{session.organisation.name}</span>
        <Dropdown align="end">
          <Dropdown.Toggle className="initials" aria-label={`${person.name}, account`}>
            {initials}
          </Dropdown.Toggle>
          <Dropdown.Menu>
            <Dropdown.Header>
              {person.name}
              <br />
              {person.email}
            </Dropdown.Header>
            {others.length > 0 && <Dropdown.Divider />}
            {others.map((one) => (
              <Dropdown.Item key={one.slug} href={`/at/${one.slug}/plan`}>
                To {one.name}
              </Dropdown.Item>
            ))}
            {others.length > 0 && <Dropdown.Divider />}
            <Dropdown.Item as={Link} to="/account">
              Your account
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => void showKeys()}>
              Keys
            </Dropdown.Item>
            <Dropdown.Item as={Link} to="/lists">
              Categories and places
            </Dropdown.Item>
            <Dropdown.Item as={Link} to="/bin">
              Bin
            </Dropdown.Item>
            {person.isAdministrator && (
              <Dropdown.Item as={Link} to="/work">
                What has not gone out
              </Dropdown.Item>
            )}
            <Dropdown.Item as={Link} to="/help">
              Help
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={signOut}>
              Sign out
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </header>
      <SeenAsNotice />
      {isOwnView && person.isAdministrator && <FailingNotice />}
      <div id="content" tabIndex={-1}>
        <ChangesProvider>
          <Outlet />
        </ChangesProvider>
      </div>
      {help && <help.Keys onHide={() => setHelp(null)} />}
    </>
  )
}
