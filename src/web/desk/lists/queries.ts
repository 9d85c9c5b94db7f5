import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

export function useLists() {
  return useQuery({ queryKey: keys.lists, queryFn: () => call('GET', '/lists') })
}
