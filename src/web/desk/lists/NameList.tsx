import { useState, type ChangeEventHandler, type FormEvent, type ReactNode } from 'react'
import type { Problem } from '../Problem'
import type { Foreseen } from '../types'
import { useUndo } from '../changes/Changes'
import { Refusal } from '../Refusal'
import { useListMerge, type ListPath } from './queries'
import { useAttempt, useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { t } from './words'

export interface ListEntry {
  id: string
  name: string
  events: number | null
}

/** What is typed of an entry besides its name. */
interface More<Entry, Values> {
  of: (entry: Entry | null) => Values
  /** @param entry The one that is changed; null for a new one. */
  input: (values: Values, change: (part: Partial<Values>) => void, entry: Entry | null) => ReactNode
  /** As it is sent. */
  sent: (values: Values) => object
}

interface NameListProps<Entry extends ListEntry, Values> {
  /** What is said of one entry, by its kind. */
  words: { name: string; new: string; add: string }
  title: string
  about: string
  /** Where the API keeps them. */
  path: ListPath
  entries: Entry[]
  retired: Entry[]
  mayEdit: boolean
  example: string
  mark?: (entry: Entry) => ReactNode
  /** What is known of an entry besides its name. */
  after?: (entry: Entry) => ReactNode
  more: More<Entry, Values>
}

/** A list of names: adding one, naming one anew, making one of two, taking one off and putting it back. */
export function NameList<Entry extends ListEntry, Values>(props: NameListProps<Entry, Values>) {
  const { entries, retired, mayEdit } = props
  const [editing, setEditing] = useState<string | null>(null)
  const offer = useOffering(props.path)
  return (
    <section>
      <h2>{props.title}</h2>
      <p className="soft">{props.about}</p>
      {entries.length === 0 && <p className="empty">{t('thereIsNoneYet')}</p>}
      <ul className="plain-list">
        {entries.map((entry) => (
          <li key={entry.id}>
            {editing === entry.id ? (
              <EntryForm {...props} entry={entry} onDone={() => setEditing(null)} />
            ) : (
              <EntryLine {...props} entry={entry} onEdit={() => setEditing(entry.id)} />
            )}
          </li>
        ))}
      </ul>
      {mayEdit && <NewEntry {...props} />}
      {retired.length > 0 && (
        <details className="retired">
          <summary>{t('notOfferedAnyMore', { count: retired.length })}</summary>
          <ul className="plain-list">
            {retired.map((entry) => (
              <li key={entry.id}>
                {props.mark?.(entry)} {entry.name} <Uses entry={entry} />
                <button type="button" className="btn btn-quiet" onClick={() => offer(entry)}>
                  {t.rich('offerAgainName', { name: entry.name }, <span className="visually-hidden" />)}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

function Uses({ entry }: { entry: ListEntry }) {
  return entry.events === null ? null : (
    <span className="soft">{entry.events === 0 ? t('noEvents') : t('events', { count: entry.events })}</span>
  )
}

function EntryLine<Entry extends ListEntry, Values>(props: NameListProps<Entry, Values> & { entry: Entry; onEdit: () => void }) {
  const { entry, path, mayEdit } = props
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const offer = useOffering(path)
  const takeOff = () =>
    attempt(async () => {
      await write('POST', `${path}/${entry.id}/retire`)
      const stays = entry.events ? t('itStaysOn', { count: entry.events }) : ''
      toast(`${t('nameIsOffTheList', { name: entry.name })} ${stays}`.trim(), () => offer(entry))
    })
  return (
    <>
      {props.mark?.(entry)} {entry.name}
      {props.after?.(entry)} <Uses entry={entry} />
      {mayEdit && (
        <span className="list-acts">
          <button type="button" className="btn btn-quiet" onClick={props.onEdit}>
            {t.rich('changeName', { name: entry.name }, <span className="visually-hidden" />)}
          </button>
          <button type="button" className="btn btn-quiet" onClick={takeOff}>
            {t.rich('takeOffName', { name: entry.name }, <span className="visually-hidden" />)}
          </button>
        </span>
      )}
    </>
  )
}

function Follows({ foreseen, other }: { foreseen: Foreseen; other: string | undefined }) {
  return (
    <span className="soft" role="status">
      {foreseen.events === 0 ? t('noEventGetsIt') : t('eventsGetThatOne', { count: foreseen.events, other })}{' '}
      {[...foreseen.newlySees, ...foreseen.seesLess].map((one) => `${one}.`).join(' ')}
    </span>
  )
}

/** Names an entry anew, or makes one of it and another. */
function EntryForm<Entry extends ListEntry, Values>(props: NameListProps<Entry, Values> & { entry: Entry; onDone: () => void }) {
  const { entry, path, words, more, entries } = props
  const { values, set, text } = useFields({ name: entry.name, more: more.of(entry), into: '' })
  const { name, into } = values
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const put = (newName: string, newValues: Values) =>
    write('PUT', `${path}/${entry.id}`, { name: newName, ...more.sent(newValues) })
  const foreseen = useListMerge(path, entry.id, into).data
  const undoAct = useUndo()
  const save = (event: FormEvent) => {
    event.preventDefault()
    void post(async () => {
      await put(name, values.more)
      const has = entry.events && name !== entry.name ? t('eventsHaveItsNewName', { count: entry.events }) : ''
      toast(`${t('nameIsSaved', { name })} ${has}`.trim(), () => put(entry.name, more.of(entry)))
      props.onDone()
    })
  }
  const merge = () =>
    post(async () => {
      const done = await write('POST', `${path}/${entry.id}/merge`, { into })
      const other = entries.find((one) => one.id === into)?.name
      toast(t('nameIsOtherNow', { name: entry.name, other, count: done.events }), () => undoAct(done.actId))
      props.onDone()
    })
  return (
    <form className="list-form" onSubmit={save} noValidate aria-label={entry.name}>
      <div className="when-line">
        <NameInput label={words.name} problem={problem} {...text('name')} />
        {more.input(values.more, (part) => set({ more: { ...values.more, ...part } }), entry)}
        <button type="submit" className="btn btn-spruce" disabled={isBusy}>
          {t('save')}
        </button>
        <button type="button" className="btn btn-quiet" onClick={props.onDone}>
          {t('leaveIt')}
        </button>
      </div>
      {entries.length > 1 && (
        <div className="when-line">
          <label htmlFor={`into-${entry.id}`}>{t('makeItOneWith')}</label>
          <select id={`into-${entry.id}`} className="form-select" {...text('into')}>
            <option value="">{t('choose')}</option>
            {entries
              .filter((one) => one.id !== entry.id)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
          </select>
          <button type="button" className="btn btn-outline-ink" disabled={!foreseen || isBusy} onClick={merge}>
            {entry.events ? t('giveItsEventsThatOne', { count: entry.events }) : t('makeOneOfBoth')}
          </button>
          {foreseen && <Follows foreseen={foreseen} other={entries.find((one) => one.id === into)?.name} />}
        </div>
      )}
      <Refusal text={problem ? (Object.values(problem.errors)[0]?.[0] ?? problem.message) : undefined} />
    </form>
  )
}

function NewEntry<Entry extends ListEntry, Values>({ words, path, example, more }: NameListProps<Entry, Values>) {
  const { values, set, begin, text } = useFields({ name: '', more: more.of(null) })
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const add = (event: FormEvent) => {
    event.preventDefault()
    void post(async () => {
      await write('POST', path, { name: values.name, ...more.sent(values.more) })
      begin({ name: '', more: more.of(null) })
    })
  }
  return (
    <form className="when-line" onSubmit={add} noValidate>
      <NameInput label={words.new} problem={problem} placeholder={example} {...text('name')} />
      {more.input(values.more, (part) => set({ more: { ...values.more, ...part } }), null)}
      <button type="submit" className="btn btn-spruce" disabled={isBusy}>
        {words.add}
      </button>
      <Refusal text={problem ? (Object.values(problem.errors)[0]?.[0] ?? problem.message) : undefined} />
    </form>
  )
}

interface NameInputProps {
  label: string
  value: string
  problem: Problem | null
  placeholder?: string
  onChange: ChangeEventHandler<HTMLInputElement>
}

function NameInput({ label, problem, ...input }: NameInputProps) {
  return <input className="form-control" aria-label={label} aria-invalid={problem?.on('name') !== undefined} {...input} />
}

/** Puts an entry back on the list. */
function useOffering(path: ListPath) {
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  return async (entry: ListEntry) =>
    attempt(async () => {
      await write('POST', `${path}/${entry.id}/offer`)
      toast(t('nameIsOnTheList', { name: entry.name }))
    })
}
