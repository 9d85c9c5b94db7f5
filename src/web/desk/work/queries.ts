import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import { unlessTold } from '../told'

/** What was to be done and does not succeed; for administrators. */
export function useFailing(isWanted: boolean) {
  return useQuery({
    queryKey: keys.failing,
    queryFn: () => call('GET', '/work'),
    enabled: isWanted,
    refetchInterval: unlessTold(30_000),
  })
}
