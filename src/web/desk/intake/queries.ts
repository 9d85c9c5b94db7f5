import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import type { Intake, IncomingState } from '../types'

/** While it is read or saved, how far that is is asked again and again. */
const ASKED_AGAIN = 400

export function useIntakes() {
  return useQuery({
    queryKey: keys.intakes,
    queryFn: () => call('GET', '/intake'),
    refetchInterval: ({ state }) => (state.data?.some(isBusy) ? ASKED_AGAIN : false),
  })
}

export function useIntake(id: string) {
  return useQuery({
    queryKey: keys.intake(id),
    queryFn: () => call('GET', `/intake/${id}`),
    refetchInterval: ({ state }) => (state.data && isBusy(state.data) ? ASKED_AGAIN : false),
    retry: false,
  })
}

export const isBusy = ({ state }: Pick<Intake, 'state'>) => state === 'reading' || state === 'saving'

/** Its events of a state, some at a time. What was read for another answer is not shown. */
export function useIntakeLines(id: string, state: IncomingState | null, turn: string) {
  return useInfiniteQuery({
    queryKey: keys.intakeLines(id, state ?? '', turn),
    queryFn: ({ pageParam, signal }) =>
      call('GET', `/intake/${id}/lines?after=${pageParam}${state ? `&state=${state}` : ''}`, undefined, { signal }),
    initialPageParam: -1,
    getNextPageParam: (last) => (last.hasMore ? (last.lines.at(-1)?.place ?? null) : null),
    placeholderData: keepPreviousData,
  })
}

/** What taking the chosen ones would do. */
export function useIntakeForeseen(id: string, turn: string, isReady: boolean) {
  return useQuery({
    queryKey: keys.intakeForeseen(id, turn),
    queryFn: ({ signal }) => call('GET', `/intake/${id}/foreseen`, undefined, { signal }),
    enabled: isReady,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
