import { lazy, type ComponentType } from 'react'
import { usePage } from './page'

/** What stands where a part could not be fetched. */
function Away() {
  return (
    <p className="notice" role="alert">
      {usePage().speech.words.away}
    </p>
  )
}

/** A part of the page that is fetched when somebody wants it, and not with every page. */
export function lazily<Props>(load: () => Promise<ComponentType<Props>>) {
  return lazy(() =>
    load().then(
      (part) => ({ default: part }),
      () => ({ default: Away as ComponentType<Props> }),
    ),
  )
}
