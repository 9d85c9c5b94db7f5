import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { bring } from '../api'
import { Field, WhatWasRefused } from '../Field'
import { FileButton } from '../FileButton'
import { useFeedText } from '../proof/queries'
import type { FileCheck } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { t } from './words'

/** Says what is wrong with a calendar file: one that is chosen, pasted, on the web, or what an edition sends. */
export function CheckPage() {
  const [question] = useSearchParams()
  const edition = question.get('edition')
  const [address, setAddress] = useState('')
  const [text, setText] = useState('')
  const [found, setFound] = useState<{ name: string; check: FileCheck }>()
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const show = (name: string, act: () => Promise<FileCheck>) =>
    void post(async () => {
      setFound(undefined)
      setFound({ name, check: await act() })
    })
  const file = (one: File) =>
    show(one.name, () =>
      bring<FileCheck>('/check/file', one, {
        away: t('couldNotBeRead', { name: one.name }),
        tooLarge: t('isTooLarge', { name: one.name }),
      }),
    )
  // A field knows no line ends but its own: those are nobody's fault.
  const pasted = (name: string, content: string) => file(new File([content.replaceAll(/\r?\n/g, '\r\n')], name))
  return (
    <main className="page check-page">
      <h1>{t('checkAFile')}</h1>
      <p className="soft">{t('checkAbout')}</p>
      <div className="check-ways">
        <FileButton
          label={t('chooseAFile')}
          accept=".ics,.ical,.ifb,.txt"
          className="btn btn-spruce"
          isReady={!isBusy}
          onBring={file}
        />
        {edition && <OfEdition id={edition} isReady={!isBusy} onCheck={(feed) => pasted(t('theFeed'), feed)} />}
        <form
          className="check-address"
          onSubmit={(event) => {
            event.preventDefault()
            show(address, () => write('POST', '/check/address', { address }))
          }}
        >
          <Field
            id="address"
            label={t('orAnAddress')}
            problem={problem}
            autoComplete="off"
            placeholder="https://"
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
          <button type="submit" className="btn btn-outline-ink" disabled={isBusy || address.trim() === ''}>
            {t('fetchAndCheck')}
          </button>
        </form>
        <details>
          <summary>{t('orText')}</summary>
          <textarea
            className="form-control"
            rows={8}
            aria-label={t('text')}
            value={text}
            spellCheck={false}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="button"
            className="btn btn-outline-ink"
            disabled={isBusy || text.trim() === ''}
            onClick={() => pasted(t('text'), text)}
          >
            {t('checkIt')}
          </button>
        </details>
      </div>
      <WhatWasRefused problem={problem} fields={['address']} />
      <div role="status">{isBusy && <p>{t('checking')}</p>}</div>
      {found && <Faults name={found.name} check={found.check} />}
    </main>
  )
}

interface OfEditionProps {
  id: string
  isReady: boolean
  onCheck: (feed: string) => void
}

function OfEdition({ id, isReady, onCheck }: OfEditionProps) {
  const feed = useFeedText(id)
  return (
    <button
      type="button"
      className="btn btn-outline-ink"
      disabled={!isReady || feed.data === undefined}
      onClick={() => feed.data !== undefined && onCheck(feed.data)}
    >
      {t('checkTheFeed')}
    </button>
  )
}

function Faults({ name, check }: { name: string; check: FileCheck }) {
  return (
    <section aria-labelledby="faults">
      <h2 id="faults">{name}</h2>
      <p>
        {check.errors + check.warnings + check.notes === 0
          ? t('nothingWrong', { lines: check.lines, count: check.components })
          : t('found', { errors: check.errors, warnings: check.warnings, notes: check.notes, lines: check.lines })}
      </p>
      {check.faults.length > 0 && (
        <div className="table-scroll">
          <table className="plain-table as-cards faults">
            <thead>
              <tr>
                <th scope="col">{t('place')}</th>
                <th scope="col">{t('severity')}</th>
                <th scope="col">{t('whatToDo')}</th>
                <th scope="col">{t('clause')}</th>
              </tr>
            </thead>
            <tbody>
              {check.faults.map((fault) => (
                <tr key={`${fault.line}:${fault.column} ${fault.code}`}>
                  <td data-label={t('place')}>{t('lineAndColumn', { line: fault.line, column: fault.column })}</td>
                  <td data-label={t('severity')} className={`fault-${fault.severity}`}>
                    {t(`severity_${fault.severity}`)}
                  </td>
                  <td data-label={t('whatToDo')}>{fault.text}</td>
                  <td data-label={t('clause')} className="soft">
                    {fault.clause}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {check.hidden > 0 && <p className="soft">{t('andMore', { count: check.hidden })}</p>}
    </section>
  )
}
