import type { ComponentType } from 'react'
import { createBrowserRouter, Navigate, Outlet, useRouteError } from 'react-router'
import { at } from './api'
import { Frame } from './Frame'
import { NothingHere } from './NothingHere'
import { t } from './words'

/** A screen is loaded when it is opened. */
const screen =
  <Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) =>
  async () => ({ Component: (await load())[name] })

const event = screen(() => import('./event/EventRoute'), 'EventRoute')
const edition = screen(() => import('./editions/EditionPage'), 'EditionPage')
const calendar = screen(() => import('./calendars/CalendarPage'), 'CalendarPage')

export const router = createBrowserRouter(
  [
    {
      element: <Outlet />,
      errorElement: <NotLoaded />,
      hydrateFallbackElement: <p className="page">{t('openingValtro')}</p>,
      children: [
        {
          path: '/invitation',
          lazy: screen(() => import('./session/InvitationPage'), 'InvitationPage'),
        },
        { path: '/reset', lazy: screen(() => import('./session/ResetPage'), 'ResetPage') },
        { path: '/forgotten', lazy: screen(() => import('./session/ForgottenPage'), 'ForgottenPage') },
        {
          element: <Frame />,
          // Within the frame, so that the other screens can still be gone to.
          children: [
            {
              errorElement: <NotLoaded />,
              children: [
                { path: '/', element: <Navigate to="/plan" replace /> },
                { path: '/plan', lazy: screen(() => import('./plan/PlanPage'), 'PlanPage') },
                { path: '/plan/sheet', lazy: screen(() => import('./wall/WallPage'), 'WallPage') },
                { path: '/events/new', lazy: event },
                {
                  path: '/events/several',
                  lazy: screen(() => import('./several/SeveralPage'), 'SeveralPage'),
                },
                { path: '/events/:id', lazy: event },
                {
                  path: '/events/:id/history',
                  lazy: screen(() => import('./history/HistoryPage'), 'HistoryPage'),
                },
                { path: '/lately', lazy: screen(() => import('./history/LatelyPage'), 'LatelyPage') },
                { path: '/bin', lazy: screen(() => import('./history/BinPage'), 'BinPage') },
                { path: '/editions', lazy: screen(() => import('./editions/EditionsPage'), 'EditionsPage') },
                { path: '/editions/new', lazy: edition },
                { path: '/editions/:id', lazy: edition },
                { path: '/editions/:id/proof', lazy: screen(() => import('./proof/ProofPage'), 'ProofPage') },
                {
                  path: '/editions/:id/deliveries',
                  lazy: screen(() => import('./deliveries/DeliveriesPage'), 'DeliveriesPage'),
                },
                { path: '/check', lazy: screen(() => import('./check/CheckPage'), 'CheckPage') },
                { path: '/needs', lazy: screen(() => import('./proof/NeedsPage'), 'NeedsPage') },
                { path: '/events/:id/trace', lazy: screen(() => import('./proof/TracePage'), 'TracePage') },
                { path: '/editions/:id/read', lazy: screen(() => import('./editions/ReadPage'), 'ReadPage') },
                { path: '/intake', lazy: screen(() => import('./intake/IntakePage'), 'IntakePage') },
                {
                  path: '/intake/:id',
                  lazy: screen(() => import('./intake/IntakeFilePage'), 'IntakeFilePage'),
                },
                {
                  path: '/intake/follow',
                  lazy: screen(() => import('./sources/FollowPage'), 'FollowPage'),
                },
                {
                  path: '/intake/sources/:id',
                  lazy: screen(() => import('./sources/SourcePage'), 'SourcePage'),
                },
                {
                  path: '/elsewhere/new',
                  lazy: screen(() => import('./elsewhere/ConnectPage'), 'ConnectPage'),
                },
                {
                  path: '/elsewhere/:id',
                  lazy: screen(() => import('./elsewhere/TargetPage'), 'TargetPage'),
                },
                { path: '/year', lazy: screen(() => import('./year/YearPlanPage'), 'YearPlanPage') },
                { path: '/year/carry', lazy: screen(() => import('./carry/CarryPage'), 'CarryPage') },
                { path: '/lists', lazy: screen(() => import('./lists/ListsPage'), 'ListsPage') },
                { path: '/people', lazy: screen(() => import('./people/PeoplePage'), 'PeoplePage') },
                { path: '/sign-off', lazy: screen(() => import('./signoff/SignOffPage'), 'SignOffPage') },
                { path: '/account', lazy: screen(() => import('./account/AccountPage'), 'AccountPage') },
                { path: '/help', lazy: screen(() => import('./HelpPage'), 'HelpPage') },
                { path: '/work', lazy: screen(() => import('./work/WorkPage'), 'WorkPage') },
                {
                  path: '/calendars',
                  lazy: screen(() => import('./calendars/CalendarsPage'), 'CalendarsPage'),
                },
                { path: '/calendars/new', lazy: calendar },
                { path: '/calendars/:id', lazy: calendar },
                {
                  path: '/calendars/:id/publishing',
                  lazy: screen(() => import('./calendars/PublishingPage'), 'PublishingPage'),
                },
                { path: '*', element: <NothingHere /> },
              ],
            },
          ],
        },
      ],
    },
  ],
  { basename: at || '/' },
)

/** A screen that did not come (the network, or a newer Valtro since this page was opened), or one that broke. */
export function NotLoaded() {
  const error = useRouteError()
  return (
    <main className="page">
      <h1>{t('thisScreenCouldNotBe')}</h1>
      <p>{t('theNetworkWasAwayValtro')}</p>
      {error instanceof Error && <p className="soft">{error.message}</p>}
      <button type="button" className="btn btn-outline-ink" onClick={() => location.reload()}>
        {t('loadThePageAgain')}
      </button>
    </main>
  )
}
