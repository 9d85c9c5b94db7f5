import { createBrowserRouter, Navigate, Outlet, useRouteError } from 'react-router'
import { Frame } from './Frame'
import { NothingHere } from './NothingHere'

/* A screen is loaded when it is opened. */
const plan = async () => ({ Component: (await import('./plan/PlanPage')).PlanPage })
const event = async () => ({ Component: (await import('./event/EventRoute')).EventRoute })
const edition = async () => ({ Component: (await import('./editions/EditionPage')).EditionPage })
const calendar = async () => ({ Component: (await import('./calendars/CalendarPage')).CalendarPage })

export const router = createBrowserRouter([
  {
    element: <Outlet />,
    errorElement: <NotLoaded />,
    hydrateFallbackElement: <p className="page">Opening Valtro …</p>,
    children: [
      {
        path: '/invitation',
        lazy: async () => ({ Component: (await import('./session/InvitationPage')).InvitationPage }),
      },
      { path: '/reset', lazy: async () => ({ Component: (await import('./session/ResetPage')).ResetPage }) },
      { path: '/forgotten', lazy: async () => ({ Component: (await import('./session/ForgottenPage')).ForgottenPage }) },
      {
        element: <Frame />,
        children: [
          { path: '/', element: <Navigate to="/plan" replace /> },
          { path: '/plan', lazy: plan },
          { path: '/events/new', lazy: event },
          {
            path: '/events/several',
            lazy: async () => ({ Component: (await import('./several/SeveralPage')).SeveralPage }),
          },
          { path: '/events/:id', lazy: event },
          {
            path: '/events/:id/history',
            lazy: async () => ({ Component: (await import('./history/HistoryPage')).HistoryPage }),
          },
          { path: '/bin', lazy: async () => ({ Component: (await import('./history/BinPage')).BinPage }) },
          { path: '/editions', lazy: async () => ({ Component: (await import('./editions/EditionsPage')).EditionsPage }) },
          { path: '/editions/new', lazy: edition },
          { path: '/editions/:id', lazy: edition },
          { path: '/editions/:id/read', lazy: async () => ({ Component: (await import('./editions/ReadPage')).ReadPage }) },
          { path: '/year', lazy: async () => ({ Component: (await import('./year/YearPlanPage')).YearPlanPage }) },
          { path: '/lists', lazy: async () => ({ Component: (await import('./lists/ListsPage')).ListsPage }) },
          { path: '/people', lazy: async () => ({ Component: (await import('./people/PeoplePage')).PeoplePage }) },
          { path: '/sign-off', lazy: async () => ({ Component: (await import('./signoff/SignOffPage')).SignOffPage }) },
          { path: '/account', lazy: async () => ({ Component: (await import('./account/AccountPage')).AccountPage }) },
          { path: '/help', lazy: async () => ({ Component: (await import('./HelpPage')).HelpPage }) },
          { path: '/work', lazy: async () => ({ Component: (await import('./work/WorkPage')).WorkPage }) },
          {
            path: '/calendars',
            lazy: async () => ({ Component: (await import('./calendars/CalendarsPage')).CalendarsPage }),
          },
          { path: '/calendars/new', lazy: calendar },
          { path: '/calendars/:id', lazy: calendar },
          {
            path: '/calendars/:id/publishing',
            lazy: async () => ({ Component: (await import('./calendars/PublishingPage')).PublishingPage }),
          },
          { path: '*', element: <NothingHere /> },
        ],
      },
    ],
  },
])

/** A screen that did not come (the network, or a newer Valtro since this page was opened), or one that broke. */
export function NotLoaded() {
  const error = useRouteError()
  return (
    <main className="page">
      <h1>This screen could not be shown</h1>
      <p>{error instanceof Error ? error.message : 'Something went wrong.'}</p>
      <p>Nothing that was saved is lost. Loading the page again fetches the newest version of Valtro.</p>
      <button type="button" className="btn btn-outline-ink" onClick={() => location.reload()}>
        Load the page again
      </button>
    </main>
  )
}
