import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import type { Answer, Method, Sent } from './addresses'
import { call } from './api'
import { rememberAct } from './changes/lastActs'
import { Problem } from './Problem'
import { askAnew } from './refresh'
import { useToast } from './Toasts'

/**
 * Calls that change something. Once it is done, or was refused since somebody else changed it first, what is on screen is asked for
 * again before it goes on.
 */
export function useWrite() {
  const client = useQueryClient()
  return useCallback(
    async <M extends Exclude<Method, 'GET'>, Address extends string>(
      method: M,
      path: Address,
      ...sent: Sent<M, Address>
    ): Promise<Answer<M, Address>> => {
      let isOther = true
      try {
        const answer = await call(method, path, ...sent)
        rememberAct(path, answer)
        return answer
      } catch (failed) {
        isOther = failed instanceof Problem && failed.status === 409
        throw failed
      } finally {
        if (isOther) await askAnew(client)
      }
    },
    [client],
  )
}

/** Runs an act that belongs to no form: what was refused is said for a while. */
export function useAttempt() {
  const toast = useToast()
  return useCallback(
    async (act: () => Promise<unknown>): Promise<void> => {
      try {
        await act()
      } catch (failed) {
        toast(failed instanceof Error ? failed.message : String(failed))
      }
    },
    [toast],
  )
}
