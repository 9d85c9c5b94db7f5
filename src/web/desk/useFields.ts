import { useState, type ChangeEvent } from 'react'

type Line = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement

/** What is typed in a form, until it is saved. What was refused of it is kept by usePost. */
export function useFields<Fields extends object>(start: Fields) {
  const [began, setBegan] = useState(start)
  const [values, setValues] = useState(start)
  const set = (change: Partial<Fields>) => setValues((before) => ({ ...before, ...change }))
  return {
    values,
    set,
    isChanged: JSON.stringify(values) !== JSON.stringify(began),
    /** Begins anew, with what is stored by now. */
    begin: (fields: Fields) => {
      setBegan(fields)
      setValues(fields)
    },
    /** Of an input of one line, or a choice. */
    text: (name: keyof Fields) => ({
      value: String(values[name]),
      onChange: (event: ChangeEvent<Line>) => set({ [name]: event.target.value } as Partial<Fields>),
    }),
    /** Of one of several that can be chosen. */
    choice: (name: keyof Fields, value: string) => ({
      value,
      checked: values[name] === value,
      onChange: () => set({ [name]: value } as Partial<Fields>),
    }),
    /** Of what is ticked or not. */
    tick: (name: keyof Fields) => ({
      checked: values[name] === true,
      onChange: (event: ChangeEvent<HTMLInputElement>) => set({ [name]: event.target.checked } as Partial<Fields>),
    }),
  }
}
