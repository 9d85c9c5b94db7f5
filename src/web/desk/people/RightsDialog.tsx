import type { FormEvent, ReactNode } from 'react'
import Modal from 'react-bootstrap/Modal'
import type { Problem } from '../Problem'
import type { Calendar, RoleOn } from '../types'
import { WhatWasRefused } from '../Field'
import { RoleTable } from './RoleTable'

export interface Rights {
  isAdministrator: boolean
  roles: RoleOn[]
}

interface RightsDialogProps {
  title: string
  calendars: Calendar[]
  rights: Rights
  onChange: (rights: Rights) => void
  problem: Problem | null
  /** Fields that say themselves what is wrong about them. */
  fields: string[]
  isBusy: boolean
  save: string
  leave: string
  onSave: () => Promise<unknown>
  onClose: () => void
  /** What is asked besides. */
  children?: ReactNode
}

/** What somebody may do: asked of those who are there, and of those who are invited. */
export function RightsDialog({ calendars, rights, problem, onChange, onSave, onClose, ...props }: RightsDialogProps) {
  const submit = (event: FormEvent) => {
    event.preventDefault()
    void onSave()
  }
  return (
    <Modal show onHide={onClose} size="lg" aria-labelledby="rights-title">
      <Modal.Body>
        <h2 id="rights-title">{props.title}</h2>
        <form onSubmit={submit} noValidate>
          {props.children}
          <RoleTable
            calendars={calendars}
            {...rights}
            onChange={(isAdministrator, roles) => onChange({ isAdministrator, roles })}
          />
          <WhatWasRefused problem={problem} fields={props.fields} />
          <p className="popup-acts">
            <button type="submit" className="btn btn-spruce" disabled={props.isBusy}>
              {props.save}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={onClose}>
              {props.leave}
            </button>
          </p>
        </form>
      </Modal.Body>
    </Modal>
  )
}
