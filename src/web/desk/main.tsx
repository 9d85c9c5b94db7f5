import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import '../shared/fonts'
import { Problem } from './Problem'
import './desk.scss'
import { language } from './language'
import { router } from './routes'
import { ToastsProvider } from './Toasts'

document.documentElement.lang = language

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (failures, problem) => failures < 2 && !(problem instanceof Problem && problem.status < 500),
    },
  },
})

const spot = document.getElementById('desk')
if (spot)
  createRoot(spot).render(
    <QueryClientProvider client={queries}>
      <ToastsProvider>
        <RouterProvider router={router} />
      </ToastsProvider>
    </QueryClientProvider>,
  )
