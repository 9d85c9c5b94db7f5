import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { rememberToken } from './api'
import type { Session } from './types'
import { keys } from './keys'

/** What is on screen is asked for again, but for what forms began with. */
export function askAnew(client: QueryClient): Promise<void> {
  return client.invalidateQueries({ predicate: ({ queryKey: [first] }) => first !== 'session' && first !== 'events' })
}

export function useRefresh() {
  const client = useQueryClient()
  return {
    everything: () => askAnew(client),
    event: (id: string) => client.invalidateQueries({ queryKey: keys.event(id) }),
    session: () => client.invalidateQueries({ queryKey: keys.session }),
    /** Everything is asked for anew, as another audience gets it. */
    asOthers: () => client.resetQueries(),
    /** Nothing of the person who was signed in stays behind. */
    forgetAll: async () => {
      await client.resetQueries({ queryKey: keys.session })
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
    },
    setSession: (session: Session) => client.setQueryData(keys.session, rememberToken(session)),
  }
}
