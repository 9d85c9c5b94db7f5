import { useMutation } from '@tanstack/react-query'
import { Problem } from './Problem'
import { useRefresh } from './refresh'

/** Runs an act of a form (see useWrite): what was refused stays with the form until it is tried again. */
export function usePost() {
  const refresh = useRefresh()
  const { mutateAsync, error, isPending, reset } = useMutation({
    mutationFn: (act: () => Promise<void>) => act(),
    // What cannot be reached is said, not kept for later.
    networkMode: 'always',
    onError: async (failed) => {
      // The session may have ended in another window: signing in again must not cost what was typed.
      if (failed instanceof Problem && failed.type === '/problems/stale-session') await refresh.session()
    },
  })
  const post = (act: () => Promise<void>): Promise<boolean> =>
    mutateAsync(act).then(
      () => true,
      () => false,
    )
  const problem = error === null || error instanceof Problem ? error : new Problem(0, '', String(error))
  return { problem, isBusy: isPending, post, forget: reset }
}
