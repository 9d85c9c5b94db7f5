import { createBrowserRouter, Navigate } from 'react-router'
import { CalendarPage } from './calendars/CalendarPage'
import { CalendarsPage } from './calendars/CalendarsPage'
import { PublishingPage } from './calendars/PublishingPage'
import { EventRoute } from './event/EventRoute'
import { Frame } from './Frame'
import { NothingHere } from './NothingHere'
import { PlanPage } from './plan/PlanPage'

export const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: '/', element: <Navigate to="/plan" replace /> },
      { path: '/plan', element: <PlanPage /> },
      { path: '/events/new', element: <EventRoute /> },
      { path: '/events/:id', element: <EventRoute /> },
      { path: '/calendars', element: <CalendarsPage /> },
      { path: '/calendars/new', element: <CalendarPage /> },
      { path: '/calendars/:id', element: <CalendarPage /> },
      { path: '/calendars/:id/publishing', element: <PublishingPage /> },
      { path: '*', element: <NothingHere /> },
    ],
  },
])
