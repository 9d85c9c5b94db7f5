/** So many are remembered: news of them come within moments. */
const MOST = 100

const changes = new Set<string>()

/** This tab made a change, and has asked for what came of it: news need not say so once more. */
export function rememberOwn(change: string): void {
  changes.add(change)
  for (const oldest of changes) {
    if (changes.size <= MOST) return
    changes.delete(oldest)
  }
}

export const isOwn = (change: string) => changes.has(change)
