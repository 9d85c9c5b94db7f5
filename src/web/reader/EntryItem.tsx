import type { ReactNode } from 'react'
import { Plate } from '../shared/Plate'
import { ActLink } from './ActLink'
import type { Entry } from './edition'
import { pageOfEntry, sourcesOf, spotOf, usePage } from './page'

interface EntryItemProps {
  entry: Entry
  /** Which of its places this is; its details open here and nowhere else. */
  where: string
  className: string
  children: ReactNode
  /** Whether the Tab key stops here; false inside grids, where arrow keys lead. */
  isStop?: boolean
}

/** An entry that does what its edition says when it is pressed: shows its details, opens its page or its first link (one to sign up before others), or nothing. */
export function EntryItem({ entry, where, className, children, isStop = true }: EntryItemProps) {
  const { edition, addresses, open, onOpen, isSheet } = usePage()
  const classes = [
    className,
    `is-${entry.state}`,
    entry.isBreak && 'is-break',
    entry.kind === 'deadline' && 'due',
    entry.certainty === 'tentative' && 'torn',
  ]
    .filter(Boolean)
    .join(' ')
  const { onEntry } = edition.look
  const tabIndex = isStop ? undefined : -1
  const page = pageOfEntry(entry, addresses)
  const link = entry.links.find(({ kind }) => kind === 'signUp') ?? entry.links[0]
  const spot = spotOf(entry, where)
  if (isSheet || entry.isBreak || onEntry === 'nothing') return <span className={classes}>{children}</span>
  if (onEntry === 'firstLink' && link)
    return (
      <a className={classes} href={link.url} target="_blank" rel="noopener noreferrer" tabIndex={tabIndex} data-entry={entry.id}>
        {children}
      </a>
    )
  if (onEntry === 'page' && page)
    return (
      <a className={classes} href={page} target="_blank" rel="noopener" tabIndex={tabIndex} data-entry={entry.id}>
        {children}
      </a>
    )
  const press = () => onOpen(open === spot ? null : spot)
  if (!page)
    return (
      <button
        type="button"
        data-entry={entry.id}
        data-spot={spot}
        className={classes}
        tabIndex={tabIndex}
        aria-expanded={open === spot}
        onClick={press}
      >
        {children}
      </button>
    )
  // Without a script it leads to the entry's own page, with one its details open here.
  return (
    <ActLink
      href={page}
      data-entry={entry.id}
      data-spot={spot}
      className={classes}
      tabIndex={tabIndex}
      expanded={open === spot}
      onPress={press}
    >
      {children}
    </ActLink>
  )
}

/** Whose an entry is. */
export function EntryPlates({ entry, always = false }: { entry: Entry; always?: boolean }) {
  const { edition } = usePage()
  if (!always && !edition.showsPlates) return null
  return sourcesOf(entry, edition).map((source) => (
    <Plate key={source.plate} code={source.plate} colour={source.colour} size="small" />
  ))
}

/** What a state is called, and what is not certain yet; nothing for what simply takes place. */
export function EntryState({ entry }: { entry: Entry }) {
  const { words } = usePage().speech
  if (entry.state !== 'cancelled' && entry.certainty === 'tentative') return <span className="tentative">{words.tentative}</span>
  if (entry.state === 'live') return null
  return <span className={entry.state === 'cancelled' ? 'cancelled' : 'unfinished'}>{words[entry.state]}</span>
}

/** What its shape says, for those who do not see it. */
export function ShapeInWords({ entry }: { entry: Entry }) {
  const { words } = usePage().speech
  const isDue = entry.kind === 'deadline'
  if (!isDue && entry.certainty === 'certain' && entry.state === 'live') return null
  return (
    <span className="visually-hidden">
      , {isDue && `${words.due} `}
      <EntryState entry={entry} />
    </span>
  )
}

/** Brings the focus back to what was pressed. */
export function focusSpot(spot: string): void {
  const buttons = [...document.querySelectorAll<HTMLElement>('[data-spot]')]
  buttons.find((button) => button.dataset.spot === spot)?.focus()
}
