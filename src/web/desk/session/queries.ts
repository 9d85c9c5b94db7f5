import { useQuery } from '@tanstack/react-query'
import { call, rememberToken } from '../api'
import type { Organisation, Session } from '../types'
import { keys } from '../keys'
import { seenAs } from '../seeAs'

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: async () => asSeen(rememberToken(await call('GET', '/session'))),
    staleTime: Infinity,
    // Whoever looks at why the desk does not come need not ask for it.
    refetchInterval: ({ state }) => (state.status === 'error' ? 5_000 : false),
  })
}

/** Who looks at things as others see them may do what those may: nothing. */
function asSeen(session: Session): Session {
  if (seenAs() === null || !session.person) return session
  return { ...session, person: { ...session.person, isAdministrator: false, maySignOff: false } }
}

/** The organisation of who is signed in. Screens are shown only then. */
export function useOrganisation(): Organisation {
  const organisation = useSession().data?.organisation
  if (!organisation) throw new Error('Nobody is signed in.')
  return organisation
}
