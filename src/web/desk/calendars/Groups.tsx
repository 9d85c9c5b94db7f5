import { useState, type FormEvent } from 'react'
import { Plate } from '../../shared/Plate'
import { call, type Calendar, type Group } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { usePost } from '../usePost'

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
      <h2>Groups</h2>
      <p className="soft">
        Several calendars under one name: to place an event on all of them, to narrow the plan, to give a role.
      </p>
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
                {calendars
                  .filter((calendar) => group.calendars.includes(calendar.id))
                  .map((calendar) => (
                    <Plate key={calendar.id} code={calendar.plate} colour={calendar.colour} size="small" />
                  ))}
                {group.calendars.length === 0 && <span className="soft">empty</span>}
              </span>
              {mayEdit && (
                <button type="button" className="btn btn-quiet" onClick={() => setEditing(group.id)}>
                  Change<span className="visually-hidden"> {group.name}</span>
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
            New group
          </button>
        ))}
    </section>
  )
}

function GroupForm({ group, calendars, onDone }: { group: Group | null; calendars: Calendar[]; onDone: () => void }) {
  const [name, setName] = useState(group?.name ?? '')
  const [chosen, setChosen] = useState<string[]>(group?.calendars ?? [])
  // As it was when the typing began, so that nothing that others save meanwhile is written over.
  const [version] = useState(group?.version)
  const { problem, isBusy, post } = usePost()
  const refresh = useRefresh()
  const toast = useToast()
  const run = async (act: () => Promise<unknown>, said: string, undo?: () => void) => {
    const done = await post(async () => {
      await act()
      await refresh.everything()
    })
    if (!done) return
    toast(said, undo)
    onDone()
  }
  const save = (event: FormEvent) => {
    event.preventDefault()
    void run(
      () =>
        group
          ? call('PUT', `/groups/${group.id}`, { name, calendars: chosen, version })
          : call('POST', '/groups', { name, calendars: chosen }),
      `The group ${name} is saved.`,
    )
  }
  const bringBack = async ({ name, calendars }: Group) => {
    await call('POST', '/groups', { name, calendars })
    await refresh.everything()
  }
  return (
    <form className="group-form" onSubmit={save} noValidate>
      <Field
        id="name"
        label="Name of the group"
        problem={problem}
        value={name}
        autoFocus
        onChange={(event) => setName(event.target.value)}
      />
      <fieldset>
        <legend>Its calendars</legend>
        {calendars.map((calendar) => (
          <label key={calendar.id} className="tick">
            <input
              type="checkbox"
              checked={chosen.includes(calendar.id)}
              onChange={(event) =>
                setChosen(event.target.checked ? [...chosen, calendar.id] : chosen.filter((id) => id !== calendar.id))
              }
            />
            <Plate code={calendar.plate} colour={calendar.colour} size="small" /> {calendar.name}
          </label>
        ))}
      </fieldset>
      <WhatWasRefused problem={problem} fields={['name']} />
      <button type="submit" className="btn btn-spruce" disabled={isBusy}>
        Save the group
      </button>{' '}
      <button type="button" className="btn btn-quiet" onClick={onDone}>
        Leave it
      </button>
      {group && (
        <button
          type="button"
          className="btn btn-brick"
          onClick={() =>
            run(
              () => call('DELETE', `/groups/${group.id}`),
              `The group ${group.name} is gone; its calendars stay.`,
              () => void bringBack(group),
            )
          }
        >
          Remove the group
        </button>
      )}
    </form>
  )
}
