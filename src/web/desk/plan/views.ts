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

/** What an address of the plan says, without the day and the page, and which groups of lanes are open. */
export function settingsOf(search: string, folds: string): Record<string, string> {
  const said = [...new URLSearchParams(search)].filter(([name]) => name !== 'day' && name !== 'page')
  return Object.fromEntries([...said, ['folds', folds] as const].filter(([, value]) => value !== ''))
}

/** What stands in the address of the plan when it is looked at so. */
export const searchOf = (settings: Record<string, string>) =>
  new URLSearchParams(Object.entries(settings).filter(([name]) => name !== 'folds')).toString()
