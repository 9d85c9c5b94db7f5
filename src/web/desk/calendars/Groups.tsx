import { useState, type FormEvent } from 'react'
import { Plate } from '../../shared/Plate'
import { Plates } from '../Plates'
import type { Calendar, Group } from '../types'
import { Field, WhatWasRefused } from '../Field'
import { useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { useFields } from '../useFields'
import { usePost } from '../usePost'
import { t } from './words'

interface GroupsProps {
  groups: Group[]
  calendars: Calendar[]
  mayEdit: boolean
}

/** Named sets of calendars, chosen at once wherever calendars are chosen. */
export function Groups({ groups, calendars, mayEdit }: GroupsProps) {
  const [editing, setEditing] = useState<string | null>(null)
  return (
    <section className="groups">
      <h2>{t('groups')}</h2>
      <p className="soft">{t('severalCalendarsUnderOneName')}</p>
      <ul className="plain-list">
        {groups.map((group) =>
          editing === group.id ? (
            <li key={group.id}>
              <GroupForm group={group} calendars={calendars} onDone={() => setEditing(null)} />
            </li>
          ) : (
            <li key={group.id}>
              <b>{group.name}</b>
              <span className="group-plates">
                <Plates calendars={calendars.filter((calendar) => group.calendars.includes(calendar.id))} />
                {group.calendars.length === 0 && <span className="soft">{t('empty')}</span>}
              </span>
              {mayEdit && (
                <button type="button" className="btn btn-quiet" onClick={() => setEditing(group.id)}>
                  {t.rich('changeName', { name: group.name }, <span className="visually-hidden" />)}
                </button>
              )}
            </li>
          ),
        )}
      </ul>
      {mayEdit &&
        (editing === 'new' ? (
          <GroupForm group={null} calendars={calendars} onDone={() => setEditing(null)} />
        ) : (
          <button type="button" className="btn btn-outline-ink" onClick={() => setEditing('new')}>
            {t('newGroup')}
          </button>
        ))}
    </section>
  )
}

function GroupForm({ group, calendars, onDone }: { group: Group | null; calendars: Calendar[]; onDone: () => void }) {
  const { values, set, text } = useFields({ name: group?.name ?? '', calendars: group?.calendars ?? [] })
  // As it was when the typing began, so that nothing that others save meanwhile is written over.
  const [version] = useState(group?.version)
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const toast = useToast()
  const run = async (act: () => Promise<unknown>, said: string, undo?: () => unknown) => {
    await post(async () => {
      await act()
      toast(said, undo)
      onDone()
    })
  }
  const save = (event: FormEvent) => {
    event.preventDefault()
    void run(
      () => (group ? write('PUT', `/groups/${group.id}`, { ...values, version }) : write('POST', '/groups', values)),
      t('theGroupNameIsSaved', { name: values.name }),
    )
  }
  const bringBack = ({ name, calendars }: Group) => write('POST', '/groups', { name, calendars })
  return (
    <form className="group-form" onSubmit={save} noValidate>
      <Field id="name" label={t('nameOfTheGroup')} problem={problem} autoFocus {...text('name')} />
      <fieldset>
        <legend>{t('itsCalendars')}</legend>
        {calendars.map((calendar) => (
          <label key={calendar.id} className="tick">
            <input
              type="checkbox"
              checked={values.calendars.includes(calendar.id)}
              onChange={(event) =>
                set({
                  calendars: event.target.checked
                    ? [...values.calendars, calendar.id]
                    : values.calendars.filter((id) => id !== calendar.id),
                })
              }
            />
            <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
          </label>
        ))}
      </fieldset>
      <WhatWasRefused problem={problem} fields={['name']} />
      <button type="submit" className="btn btn-spruce" disabled={isBusy}>
        {t('saveTheGroup')}
      </button>{' '}
      <button type="button" className="btn btn-quiet" onClick={onDone}>
        {t('leaveIt')}
      </button>
      {group && (
        <button
          type="button"
          className="btn btn-brick"
          onClick={() =>
            run(
              () => write('DELETE', `/groups/${group.id}`),
              t('theGroupNameIsGone', { name: group.name }),
              () => bringBack(group),
            )
          }
        >
          {t('removeTheGroup')}
        </button>
      )}
    </form>
  )
}
