import { useQueryClient } from '@tanstack/react-query'
import { rememberToken } from './api'
import type { Session } from './types'
import { keys } from './keys'

/** After any change: what is on screen is asked for again. */
export function useRefresh() {
  const client = useQueryClient()
  return {
    everything: () =>
      client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' && query.queryKey[0] !== 'events' }),
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
