import { useEffect, useId, useRef, useState } from 'react'
import Modal from 'react-bootstrap/Modal'
import { useNavigate } from 'react-router'
import { useCalendars } from '../calendars/queries'
import { Plates } from '../Plates'
import { useOrganisation } from '../session/queries'
import { useSettled } from '../useSettled'
import { groupsOf, type Choice, type ChoiceGroup } from './groups'
import { useSearch } from './queries'
import { t } from './words'

const SOON = 150

/** One field for events of all times, days, calendars, editions and people: what comes next first. */
export function SearchPanel({ onHide }: { onHide: () => void }) {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const { locale } = useOrganisation()
  const calendars = useCalendars().data ?? []
  const wanted = useSettled(text.trim(), SOON)
  const search = useSearch(wanted)
  const found = wanted.length >= 2 ? search.data : undefined
  const groups = found ? groupsOf(found, wanted, calendars, locale) : []
  const choices = groups.flatMap((group) => group.choices)
  const [marked, setMarked] = useState<string | null>(null)
  const at = Math.max(
    0,
    choices.findIndex((one) => one.key === marked),
  )
  const id = useId()
  const isCurrent = wanted === text.trim() && search.isSuccess && !search.isPlaceholderData
  // Enter does not open what was found for what stood there before: it waits for what was typed last.
  const [isAwaited, setIsAwaited] = useState(false)
  const chosen = isAwaited && isCurrent ? choices[at]?.to : undefined
  const hide = useRef(onHide)
  useEffect(() => {
    hide.current = onHide
  })
  useEffect(() => {
    if (chosen === undefined) return
    hide.current()
    void navigate(chosen)
  }, [chosen, navigate])

  const open = (choice: Choice) => {
    onHide()
    void navigate(choice.to)
  }
  const onKeyDown = (event: React.KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (step) {
      event.preventDefault()
      setMarked(choices[(at + step + choices.length) % Math.max(1, choices.length)]?.key ?? null)
    }
    if (event.key === 'Enter') setIsAwaited(true)
  }
  return (
    <Modal show onHide={onHide} className="search-panel" aria-label={t('search')} enforceFocus>
      <input
        className="search-input"
        role="combobox"
        aria-label={t('searchFor')}
        aria-expanded={choices.length > 0}
        aria-controls={`${id}-found`}
        aria-activedescendant={choices[at] ? `${id}-${at}` : undefined}
        aria-autocomplete="list"
        autoComplete="off"
        autoFocus
        placeholder={t('eventsDaysCalendarsPeople')}
        value={text}
        maxLength={200}
        onChange={(event) => {
          setText(event.target.value)
          setMarked(null)
          setIsAwaited(false)
        }}
        onKeyDown={onKeyDown}
      />
      <div className="search-found" id={`${id}-found`} role="listbox" aria-label={t('found')}>
        {groups.map((group) => (
          <Group key={group.name} group={group} id={id} choices={choices} marked={at} open={open} mark={setMarked} />
        ))}
      </div>
      <p className="search-note" role="status">
        {search.error ? search.error.message : noteOf(text, choices.length, found?.hasMore ?? false, search.isFetching)}
      </p>
    </Modal>
  )
}

function noteOf(text: string, count: number, hasMore: boolean, isFetching: boolean): string {
  if (text.trim().length < 2) return t('howToSearch')
  if (count === 0) return isFetching ? t('lookingFor') : t('nothingIsCalledSo', { text: text.trim() })
  return hasMore ? t('thereIsMore') : t('enterOpensIt')
}

interface GroupProps {
  group: ChoiceGroup
  id: string
  choices: Choice[]
  marked: number
  open: (choice: Choice) => void
  mark: (key: string) => void
}

function Group({ group, id, choices, marked, open, mark }: GroupProps) {
  return (
    <div role="group" aria-label={group.name}>
      <h3 aria-hidden="true">{group.name}</h3>
      {group.choices.map((choice) => {
        const index = choices.indexOf(choice)
        return (
          <div
            key={choice.key}
            id={`${id}-${index}`}
            role="option"
            tabIndex={-1}
            aria-selected={index === marked}
            ref={index === marked ? (shown) => shown?.scrollIntoView({ block: 'nearest' }) : undefined}
            onMouseMove={() => mark(choice.key)}
            onClick={() => open(choice)}
          >
            <span className="search-plates">
              <Plates calendars={choice.calendars} />
            </span>
            <span className={choice.state ? `search-title slip-${choice.state}` : 'search-title'}>{choice.title}</span>
            <span className="soft">{choice.about}</span>
          </div>
        )
      })}
    </div>
  )
}
