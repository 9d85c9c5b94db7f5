import type { InputHTMLAttributes, ReactNode } from 'react'
import type { Problem } from './Problem'
import { Refusal } from './Refusal'

interface FieldProps extends Omit<InputHTMLAttributes<HTMLInputElement>, 'about'> {
  id: string
  label: string
  problem: Problem | null
  /** A sentence that helps. */
  about?: ReactNode
}

/** A labelled line to type in, with what is wrong about it. */
export function Field({ id, label, problem, about, ...input }: FieldProps) {
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className="form-control"
        aria-invalid={problem?.on(id) !== undefined}
        aria-describedby={`${id}-refusal`}
        {...input}
      />
      {about && <span className="soft">{about}</span>}
      <Refusal id={`${id}-refusal`} text={problem?.on(id)} />
    </div>
  )
}

/** What was refused and concerns no field in sight. */
export function WhatWasRefused({ problem, fields }: { problem: Problem | null; fields: string[] }) {
  if (!problem || fields.some((field) => problem.on(field))) return null
  return (
    <p className="notice" role="alert">
      {problem.message}
    </p>
  )
}
