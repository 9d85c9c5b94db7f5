import { useMutation } from '@tanstack/react-query'
import { Problem } from './Problem'

/** Runs an act of a form (see useWrite): what was refused stays with the form until it is tried again. */
export function usePost() {
  const { mutateAsync, error, isPending, reset } = useMutation({
    mutationFn: (act: () => Promise<void>) => act(),
    // What cannot be reached is said, not kept for later.
    networkMode: 'always',
  })
  const post = (act: () => Promise<void>): Promise<boolean> =>
    mutateAsync(act).then(
      () => true,
      () => false,
    )
  const problem = error === null || error instanceof Problem ? error : new Problem(0, '', String(error))
  return { problem, isBusy: isPending, post, forget: reset }
}
