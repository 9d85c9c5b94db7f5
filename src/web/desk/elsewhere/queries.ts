import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

/** While one is written, it is looked again and again. */
const WRITTEN_AGAIN = 500

export function useTargets() {
  return useQuery({
    queryKey: keys.targets,
    queryFn: () => call('GET', '/targets'),
    refetchInterval: ({ state }) => (state.data?.some((one) => one.isBusy) ? WRITTEN_AGAIN : false),
  })
}

export function useTarget(id: string) {
  return useQuery({
    queryKey: keys.target(id),
    queryFn: () => call('GET', `/targets/${id}`),
    refetchInterval: ({ state }) => (state.data?.isBusy ? WRITTEN_AGAIN : false),
    retry: false,
  })
}

/** The calendars elsewhere into which an event of some calendars may be written too. */
export function useTargetsOf(calendars: string[], eventId: string | null) {
  const asked = [...calendars].sort()
  const query = [...asked.map((id) => `calendar=${id}`), ...(eventId ? [`eventId=${eventId}`] : [])].join('&')
  return useQuery({
    queryKey: keys.targetsOf(asked.join(' '), eventId ?? ''),
    queryFn: () => call('GET', `/targets/of-calendars?${query}`),
    enabled: asked.length > 0,
  })
}
