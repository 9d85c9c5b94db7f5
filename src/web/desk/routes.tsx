import { createBrowserRouter, Navigate } from 'react-router'
import { AccountPage } from './account/AccountPage'
import { CalendarPage } from './calendars/CalendarPage'
import { CalendarsPage } from './calendars/CalendarsPage'
import { PublishingPage } from './calendars/PublishingPage'
import { EditionPage } from './editions/EditionPage'
import { EditionsPage } from './editions/EditionsPage'
import { ReadPage } from './editions/ReadPage'
import { EventRoute } from './event/EventRoute'
import { BinPage } from './history/BinPage'
import { HistoryPage } from './history/HistoryPage'
import { Frame } from './Frame'
import { HelpPage } from './HelpPage'
import { ListsPage } from './lists/ListsPage'
import { NothingHere } from './NothingHere'
import { PeoplePage } from './people/PeoplePage'
import { PlanPage } from './plan/PlanPage'
import { ForgottenPage } from './session/ForgottenPage'
import { InvitationPage } from './session/InvitationPage'
import { ResetPage } from './session/ResetPage'
import { SeveralPage } from './several/SeveralPage'
import { SignOffPage } from './signoff/SignOffPage'
import { WorkPage } from './work/WorkPage'
import { YearPlanPage } from './year/YearPlanPage'

export const router = createBrowserRouter([
  { path: '/invitation', element: <InvitationPage /> },
  { path: '/reset', element: <ResetPage /> },
  { path: '/forgotten', element: <ForgottenPage /> },
  {
    element: <Frame />,
    children: [
      { path: '/', element: <Navigate to="/plan" replace /> },
      { path: '/plan', element: <PlanPage /> },
      { path: '/events/new', element: <EventRoute /> },
      { path: '/events/several', element: <SeveralPage /> },
      { path: '/events/:id', element: <EventRoute /> },
      { path: '/events/:id/history', element: <HistoryPage /> },
      { path: '/bin', element: <BinPage /> },
      { path: '/editions', element: <EditionsPage /> },
      { path: '/editions/new', element: <EditionPage /> },
      { path: '/editions/:id', element: <EditionPage /> },
      { path: '/editions/:id/read', element: <ReadPage /> },
      { path: '/year', element: <YearPlanPage /> },
      { path: '/lists', element: <ListsPage /> },
      { path: '/people', element: <PeoplePage /> },
      { path: '/sign-off', element: <SignOffPage /> },
      { path: '/account', element: <AccountPage /> },
      { path: '/help', element: <HelpPage /> },
      { path: '/work', element: <WorkPage /> },
      { path: '/calendars', element: <CalendarsPage /> },
      { path: '/calendars/new', element: <CalendarPage /> },
      { path: '/calendars/:id', element: <CalendarPage /> },
      { path: '/calendars/:id/publishing', element: <PublishingPage /> },
      { path: '*', element: <NothingHere /> },
    ],
  },
])
