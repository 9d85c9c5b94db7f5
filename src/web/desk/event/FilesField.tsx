import { useId, useRef, useState } from 'react'
import { apiAddress } from '../api'
import { language } from '../language'
import { Problem } from '../Problem'
import { Refusal } from '../Refusal'
import type { EventFile, Focus } from '../types'
import { bringFile, replaceFile } from './bringFile'
import type { Draft } from './draft'
import { t } from './words'

interface FilesFieldProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  /** Those that the saved event holds: only these have an address that somebody may know. */
  held?: EventFile[]
}

const isPicture = (file: EventFile) => /\.(png|jpe?g|webp|gif)$/i.test(file.name)

/** Files of an event: brought, replaced by a newer version at the same address, taken off; and what its picture shows. */
export function FilesField({ draft, set, problem, held = [] }: FilesFieldProps) {
  const id = useId()
  const [said, setSaid] = useState('')
  const [refused, setRefused] = useState('')
  const picture = draft.files.find(isPicture)
  const doing = async (name: string, work: () => Promise<string>) => {
    setRefused('')
    setSaid(t('bringing', { bringing: name }))
    try {
      setSaid(await work())
    } catch (failed) {
      setSaid('')
      setRefused(failed instanceof Problem ? (failed.on('files') ?? failed.message) : String(failed))
    }
  }
  const bring = async (chosen: FileList | null) => {
    const brought = [...draft.files]
    for (const file of chosen ?? [])
      await doing(file.name, async () => {
        brought.push(await bringFile(file))
        set({ files: [...brought] })
        return ''
      })
  }
  const replace = (old: EventFile, by: File) =>
    doing(by.name, async () => {
      const { file, events } = await replaceFile(old.id, by)
      set({ files: draft.files.map((one) => (one.id === old.id ? file : one)) })
      return t('replaced', { name: file.name, count: events })
    })
  return (
    <div>
      <ul className="plain-list file-list">
        {draft.files.map((file) => (
          <li key={file.id}>
            <a href={apiAddress(`/files/${file.id}`)} target="_blank" rel="noopener">
              {file.name}
            </a>{' '}
            <span className="soft">{saySize(file.size)}</span>{' '}
            {held.some((one) => one.id === file.id) && <NewVersion file={file} onChoose={(by) => void replace(file, by)} />}
            <button
              type="button"
              className="btn btn-quiet"
              aria-label={t('takeOffName', { name: file.name })}
              onClick={() => set({ files: draft.files.filter((one) => one.id !== file.id) })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <label htmlFor={id} className="visually-hidden">
        {t('bringFiles')}
      </label>
      <input
        id={id}
        type="file"
        multiple
        className="form-control"
        onChange={(event) => {
          void bring(event.target.files)
          event.target.value = ''
        }}
      />
      <span className="soft" role="status">
        {said || t('whichFiles')}
      </span>
      <Refusal text={refused || problem?.on('files')} />
      {picture && <PictureFields picture={picture} draft={draft} set={set} problem={problem} />}
    </div>
  )
}

/** Another version of a file: everyone who has its address gets that one. */
function NewVersion({ file, onChoose }: { file: EventFile; onChoose: (by: File) => void }) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => input.current?.click()}>
        {t.rich('newVersionOf', { name: file.name }, <span className="visually-hidden" />)}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        accept={file.name.slice(file.name.lastIndexOf('.'))}
        aria-label={t('newVersionLabel', { name: file.name })}
        onChange={(event) => {
          const by = event.target.files?.[0]
          if (by) onChoose(by)
          event.target.value = ''
        }}
      />
    </>
  )
}

const focuses: Focus[] = ['topLeft', 'top', 'topRight', 'left', 'centre', 'right', 'bottomLeft', 'bottom', 'bottomRight']

/** What the picture shows, and which part of it stays in sight where it is cut. */
function PictureFields({ picture, draft, set, problem }: FilesFieldProps & { picture: EventFile }) {
  const name = useId()
  const note = draft.picture ?? { alternative: '', focus: 'centre' }
  return (
    <div className="picture-fields">
      <fieldset className="focus-choice">
        <legend>{t('whatStaysInSight')}</legend>
        <div className="focus-grid">
          <img src={apiAddress(`/files/${picture.id}`)} alt="" />
          <div className="focus-points">
            {focuses.map((focus) => (
              <label key={focus} title={t(`focus_${focus}`)}>
                <input
                  type="radio"
                  name={name}
                  checked={note.focus === focus}
                  onChange={() => set({ picture: { ...note, focus } })}
                  aria-label={t(`focus_${focus}`)}
                />
              </label>
            ))}
          </div>
        </div>
      </fieldset>
      <label className="picture-words">
        {t('whatThePictureShows')}
        <input
          className="form-control"
          value={note.alternative}
          maxLength={300}
          aria-invalid={problem?.on('picture') !== undefined}
          onChange={(event) => set({ picture: { ...note, alternative: event.target.value } })}
        />
        <span className="soft">{note.alternative.trim() === '' ? t('pictureSaysNothingYet') : t('readToThoseWhoDoNot')}</span>
        <Refusal text={problem?.on('picture')} />
      </label>
    </div>
  )
}

export function saySize(bytes: number): string {
  if (bytes === 0) return ''
  if (bytes < 1_000_000) return `${Math.max(1, Math.round(bytes / 1000))} kB`
  return `${(bytes / 1_000_000).toLocaleString(language, { minimumFractionDigits: 1, maximumFractionDigits: 1 })} MB`
}
