/** Which kept view was chosen last in this browser: what the plan's address says, without the day. */
const key = (organisation: string) => `valtro.view.${organisation}`

export function lastView(organisation: string): string | null {
  try {
    return localStorage.getItem(key(organisation))
  } catch {
    return null
  }
}

/** @param search Null for none: the plan as it is at first. */
export function rememberView(organisation: string, search: string | null): void {
  try {
    if (search === null) localStorage.removeItem(key(organisation))
    else localStorage.setItem(key(organisation), search)
  } catch {
    // A browser that keeps nothing comes to the plan as it is at first.
  }
}

/** What an address of the plan says, without the day and the page. */
export function settingsOf(search: string): Record<string, string> {
  return Object.fromEntries(
    [...new URLSearchParams(search)].filter(([name, value]) => name !== 'day' && name !== 'page' && value !== ''),
  )
}

export const searchOf = (settings: Record<string, string>) => new URLSearchParams(settings).toString()
