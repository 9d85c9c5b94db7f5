import type { Entry } from './edition'

/** What an entry is called, where there is room for all of it. */
export function EntryTitle({
  entry,
  as: Element = 'span',
  className = '',
}: {
  entry: Entry
  as?: 'span' | 'h3'
  className?: string
}) {
  return (
    <Element
      dir="auto"
      className={`${className} ${entry.state === 'cancelled' && Element === 'h3' ? 'struck' : ''}`.trim() || undefined}
    >
      {entry.title}
      {entry.subtitle && (
        <span className="line-place" dir="auto">
          {entry.subtitle}
        </span>
      )}
    </Element>
  )
}
