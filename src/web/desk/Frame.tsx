import { lazy, Suspense, useState, type ComponentType } from 'react'
import Dropdown from 'react-bootstrap/Dropdown'
import { Link, NavLink, Outlet, useNavigate } from 'react-router'
import { call } from './api'
import { ChangesProvider } from './changes/Changes'
import { useRefresh } from './refresh'
import { useSession } from './session/queries'
import { useSignOffCount } from './signoff/queries'
import { SeeAsChoice, SeenAsNotice } from './SeeAs'
import { seeAs, useSeenAs } from './seeAs'
import { useToast } from './Toasts'
import { useKeys } from './useKeys'
import { useNews } from './useNews'
import { FailingNotice } from './work/FailingNotice'
import { t } from './words'

// Most who open the desk are signed in.
const SignIn = lazy(() => import('./session/SignIn').then(({ SignIn: shown }) => ({ default: shown })))
const ChooseOrganisation = lazy(() =>
  import('./session/ChooseOrganisation').then(({ ChooseOrganisation: shown }) => ({ default: shown })),
)

/** The bar above every screen, and the sign-in in front of them. */
export function Frame() {
  const session = useSession()
  if (session.isPending) return <p className="page">{t('openingValtro')}</p>
  if (session.isError)
    return (
      <main className="page">
        <h1>{t('valtroCannotBeReached')}</h1>
        <p>{session.error.message}</p>
        <button type="button" className="btn btn-outline-ink" onClick={() => session.refetch()}>
          {t('tryAgain')}
        </button>
      </main>
    )
  if (session.data.person && session.data.organisation) return <SignedIn />
  return (
    <Suspense fallback={<p className="page">{t('openingValtro')}</p>}>
      {session.data.person ? <ChooseOrganisation organisations={session.data.organisations} /> : <SignIn />}
    </Suspense>
  )
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
      () => toast(t('theListOfKeysCould')),
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
        {t('toTheContent')}
      </a>
      <header className="bar">
        <NavLink to="/plan" className="brand" aria-label={t('valtroToThePlan')}>
          <img src="/mark.svg" alt="" width="24" height="24" />
          <span className="wordmark">valtro</span>
        </NavLink>
        <nav aria-label={t('screens')}>
          <NavLink to="/plan">{t('plan')}</NavLink>
          <NavLink to="/calendars">{t('calendars')}</NavLink>
          <NavLink to="/editions">{t('editions')}</NavLink>
          <NavLink to="/year">{t('yearPlan')}</NavLink>
          {isOwnView && person.maySignOff && (
            <NavLink to="/sign-off">
              {t('signOff')}
              {waiting > 0 && (
                <span className="waiting-count">
                  {waiting}
                  <span className="visually-hidden"> {t('wait', { count: waiting })}</span>
                </span>
              )}
            </NavLink>
          )}
          {person.isAdministrator && <NavLink to="/people">{t('people')}</NavLink>}
        </nav>
        <SeeAsChoice />
        <span className="organisation">{session.organisation.name}</span>
        <Dropdown align="end">
          <Dropdown.Toggle className="initials" aria-label={t('nameAccount', { name: person.name })}>
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
                {t('toName', { name: one.name })}
              </Dropdown.Item>
            ))}
            {others.length > 0 && <Dropdown.Divider />}
            <Dropdown.Item as={Link} to="/account">
              {t('yourAccount')}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => void showKeys()}>
              {t('keys')}
            </Dropdown.Item>
            <Dropdown.Item as={Link} to="/lists">
              {t('categoriesAndPlaces')}
            </Dropdown.Item>
            <Dropdown.Item as={Link} to="/bin">
              {t('bin')}
            </Dropdown.Item>
            {person.isAdministrator && (
              <Dropdown.Item as={Link} to="/work">
                {t('whatHasNotGoneOut')}
              </Dropdown.Item>
            )}
            <Dropdown.Item as={Link} to="/help">
              {t('help')}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={signOut}>
              {t('signOut')}
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
