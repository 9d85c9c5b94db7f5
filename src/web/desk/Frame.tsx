import { lazy, Suspense, useDeferredValue, useEffect, useState, type ComponentType } from 'react'
import { NavLink, Outlet, ScrollRestoration } from 'react-router'
import { ChangesProvider } from './changes/Changes'
import { useUndoKey } from './changes/useUndoKey'
import { holdBackWhileReading } from './readings'
import { useNeeds } from './proof/queries'
import { Screens } from './Screens'
import { useSession } from './session/queries'
import { useSignInAgain } from './session/useSignInAgain'
import { useSignOffCount } from './signoff/queries'
import { SeenAsNotice } from './SeenAsNotice'
import { useSeenAs } from './seeAs'
import { useToast } from './Toasts'
import { useKeys } from './useKeys'
import { useNews } from './useNews'
import { FailingNotice } from './work/FailingNotice'
import { t } from './words'

// Most who open the desk are signed in.
const SignIn = lazy(() => import('./session/SignIn').then(({ SignIn: shown }) => ({ default: shown })))
// Menus are opened after something was seen.
const AccountMenu = lazy(() => import('./AccountMenu').then(({ AccountMenu: shown }) => ({ default: shown })))
const SeeAsChoice = lazy(() => import('./SeeAs').then(({ SeeAsChoice: shown }) => ({ default: shown })))
const ChooseOrganisation = lazy(() =>
  import('./session/ChooseOrganisation').then(({ ChooseOrganisation: shown }) => ({ default: shown })),
)

/** The bar above every screen, and the sign-in in front of them. */
export function Frame() {
  const session = useSession()
  // The whole desk follows: it is drawn in pieces, so that the page answers meanwhile.
  const known = useDeferredValue(session.data)
  if (session.isPending || (session.data && !known)) return <p className="page">{t('openingValtro')}</p>
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
  const toast = useToast()
  const [Panel, setPanel] = useState<ComponentType<{ onHide: () => void }> | null>(null)
  const showKeys = () =>
    import('./KeysHelp').then(
      ({ KeysHelp }) => setPanel(() => KeysHelp),
      () => toast(t('theListOfKeysCould')),
    )
  const showSearch = () =>
    import('./search/SearchPanel').then(
      ({ SearchPanel }) => setPanel(() => SearchPanel),
      () => toast(t('searchCouldNotBe')),
    )
  useEffect(() => holdBackWhileReading(), [])
  useUndoKey()
  useKeys({ '?': () => void showKeys(), '/': () => void showSearch() })
  const person = session?.person
  const isOwnView = useSeenAs() === null
  useNews(isOwnView && person?.maySignOff === true)
  const signInAgain = useSignInAgain(person)
  const waiting = useSignOffCount(isOwnView && person?.maySignOff === true).data?.toDecide ?? 0
  const kept = useNeeds(isOwnView && person?.maySignOff === true).data?.counts.keepsFromReaders ?? 0
  if (!person || !session.organisation) return null
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
        <Screens
          isAdministrator={person.isAdministrator}
          signsOff={isOwnView && person.maySignOff}
          waiting={waiting}
          kept={kept}
        />
        <button type="button" className="bar-search" onClick={() => void showSearch()}>
          {t('findAnEventOrA')} <kbd aria-hidden="true">/</kbd>
        </button>
        <Suspense fallback={<span className="bar-menus-place" />}>
          <SeeAsChoice />
        </Suspense>
        <span className="organisation">{session.organisation.name}</span>
        <Suspense fallback={<span className="initials-place" />}>
          <AccountMenu session={session} person={person} />
        </Suspense>
      </header>
      <ScrollRestoration getKey={({ pathname, search }) => pathname + search} />
      {signInAgain}
      <SeenAsNotice />
      {isOwnView && person.isAdministrator && <FailingNotice />}
      <div id="content" tabIndex={-1}>
        <ChangesProvider>
          <Outlet />
        </ChangesProvider>
      </div>
      <footer className="desk-foot">
        {isOwnView && person.maySignOff && <NavLink to="/needs">{t('whatNeedsYou')}</NavLink>}
        <NavLink to="/lately">{t('doneLately')}</NavLink>
        <NavLink to="/bin">{t('bin')}</NavLink>
        <NavLink to="/help">{t('help')}</NavLink>
        <button type="button" className="as-link" onClick={() => void showKeys()}>
          {t('keys')}
        </button>
      </footer>
      {Panel && <Panel onHide={() => setPanel(null)} />}
    </>
  )
}
