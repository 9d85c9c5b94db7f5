// @vitest-environment happy-dom
import { act, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useEffect, useState } from 'react'
import { expect, test } from 'vitest'
import { movedEnd } from '../../src/web/desk/event/movedEnd'
import { holdBackWhileReading } from '../../src/web/desk/readings'
import { useTyped } from '../../src/web/desk/useTyped'
import { refusal } from './deskWorld'

/** Answers that arrive when the test says so. */
const waiting = new Map<string, (values: string[] | Error) => void>()
const read = (text: string) =>
  new Promise<string[]>((resolve, reject) =>
    waiting.set(text, (values) => (values instanceof Error ? reject(values) : resolve(values))),
  )
const arrives = (text: string, ...values: string[]) => act(async () => waiting.get(text)?.(values))

function Field({ label, value, onChange }: { label: string; value: string | null; onChange: (value: string | null) => void }) {
  const typed = useTyped<string>(read, onChange)
  return (
    <>
      <input
        aria-label={label}
        value={typed.text ?? value ?? ''}
        onChange={(event) => typed.type(event.target.value)}
        onFocus={(event) => typed.enter(event.target.value)}
        onBlur={typed.leave}
      />
      {typed.isUnread && <p>{typed.problem?.message ?? `no ${label}`}</p>}
      {typed.choices.map((one) => (
        <button key={one} type="button" onClick={() => (typed.settle(), onChange(one))}>
          {one}
        </button>
      ))}
    </>
  )
}

/** A start that takes the end with it, as events have them. */
function Form({ save }: { save: (said: string) => void }) {
  const [{ from, to }, set] = useState<{ from: string | null; to: string | null }>({ from: '13:00', to: '14:00' })
  useEffect(() => holdBackWhileReading(), [])
  return (
    <form onSubmit={(event) => (event.preventDefault(), save(`${from}–${to}`))}>
      <Field
        label="start"
        value={from}
        onChange={(start) => set((was) => ({ from: start, to: movedEnd(was.from, was.to, start) }))}
      />
      <Field label="end" value={to} onChange={(end) => set((was) => ({ ...was, to: end }))} />
      <button type="submit">Save</button>
    </form>
  )
}

function open() {
  const saved: string[] = []
  render(<Form save={(said) => saved.push(said)} />)
  return {
    user: userEvent.setup(),
    saved,
    start: screen.getByLabelText<HTMLInputElement>('start'),
    end: screen.getByLabelText<HTMLInputElement>('end'),
  }
}

test('what is pressed while a reading is on its way is pressed when it has arrived', async () => {
  const { user, saved, start } = open()
  await user.clear(start)
  await user.type(start, '3')
  await user.click(screen.getByRole('button', { name: 'Save' }))
  expect(saved).toEqual([])
  await arrives('3', '15:00')
  await waitFor(() => expect(saved).toEqual(['15:00–14:00']))
})

test('readings count in the order in which they were typed, whichever arrives first', async () => {
  const { user, saved, start, end } = open()
  await user.tripleClick(start)
  await user.paste('15:00')
  await user.tripleClick(end)
  await user.paste('15:30')
  await arrives('15:30', '15:30')
  await arrives('15:00', '15:00')
  await user.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(saved).toEqual(['15:00–15:30']))
})

test('what stands in a field stays while somebody is there, also when the start moves the end', async () => {
  const { user, start, end } = open()
  await user.tripleClick(start)
  await user.paste('15:00')
  await user.click(end)
  await arrives('15:00', '15:00')
  expect(end.value).toBe('14:00')
  await user.tab()
  expect(end.value).toBe('16:00')
})

test('what was typed before does not answer for what stands there now, and what is none or two is said', async () => {
  const { user, start } = open()
  await user.tripleClick(start)
  await user.paste('1')
  await user.keyboard('2')
  await arrives('1', '01:00')
  await arrives('12')
  expect(await screen.findByText('no start')).toBeTruthy()
  expect(start.value).toBe('12')
  await user.keyboard('?')
  await arrives('12?', '12:00', '00:00')
  await user.click(await screen.findByRole('button', { name: '00:00' }))
  expect(start.value).toBe('00:00')
  await user.tripleClick(start)
  await user.paste('9')
  await act(async () => waiting.get('9')?.(refusal(0, 'Valtro does not answer.')))
  expect(await screen.findByText('Valtro does not answer.')).toBeTruthy()
  expect(start.value).toBe('9')
})

/** Works out what becomes of all from what it was drawn with, as lists of days do. */
function Pair() {
  const [[first, last], set] = useState<(string | null)[]>(['1', '2'])
  return (
    <>
      <Field label="first" value={first ?? null} onChange={(day) => set([day, last ?? null])} />
      <Field label="last" value={last ?? null} onChange={(day) => set([first ?? null, day])} />
      <output>{`${first}–${last}`}</output>
    </>
  )
}

test('of two readings that arrive at once neither is lost', async () => {
  render(<Pair />)
  const user = userEvent.setup()
  for (const [label, text] of [
    ['first', '10'],
    ['last', '12'],
  ] as const) {
    await user.tripleClick(screen.getByLabelText(label))
    await user.paste(text)
  }
  // The second waits for the first, and both are taken in one go.
  await act(async () => {
    waiting.get('12')?.(['12'])
    waiting.get('10')?.(['10'])
  })
  expect(screen.getByRole('status').textContent).toBe('10–12')
})
