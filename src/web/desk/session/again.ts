/** Lets whoever is at the desk sign in again; true once they have, false where they would rather not. */
type Ask = () => Promise<boolean>

let ask: Ask | null = null
let asking: Promise<boolean> | null = null
/** They would rather not: what only looks does not ask them again. */
let isPutOff = false

/** Says who asks for the password while somebody is at the desk. */
export function askForPasswordWith(next: Ask): () => void {
  ask = next
  isPutOff = false
  return () => {
    ask = null
  }
}

/** What finds at the same time that the session has ended waits for one answer. */
export function signedInAgain(isAct: boolean): Promise<boolean> {
  if (!ask || (isPutOff && !isAct && !asking)) return Promise.resolve(false)
  asking ??= ask()
    .then((isSignedIn) => {
      isPutOff = !isSignedIn
      return isSignedIn
    })
    .finally(() => {
      asking = null
    })
  return asking
}
