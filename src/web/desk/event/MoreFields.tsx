import { Fragment, useState } from 'react'
import { Problem } from '../Problem'
import { Refusal } from '../Refusal'
import type { EventFile, EventLink, LinkKind } from '../types'
import type { Draft } from './draft'
import { fieldName } from './fields'
import { FilesField } from './FilesField'
import { NumberField } from './NumberField'
import { PeopleField } from './PeopleField'
import { ReminderField } from './ReminderField'
import { t } from './words'

interface MoreFieldsProps {
  draft: Draft
  set: (change: Partial<Draft>) => void
  problem: Problem | null
  /** Files that the saved event holds. */
  held?: EventFile[]
}

/** Fields of one line of text, with what stands there before anything does. */
const lines = { subtitle: t('aLineMoreUnderThe'), contact: t('whomReadersAsk') }

/** Fields of one of some words, the usual one first. */
const choices = {
  certainty: { certain: t('certain'), tentative: t('tentative') },
  transparency: { usual: t('transparencyUsual'), free: t('transparencyFree'), busy: t('transparencyBusy') },
}

/** What links are called that have no words of their own. */
export const linkKinds: Record<LinkKind, string> = {
  website: t('linkWebsite'),
  signUp: t('linkSignUp'),
  tickets: t('linkTickets'),
  map: t('linkMap'),
  videoCall: t('linkVideoCall'),
}

const noLink: EventLink = { label: '', url: '', kind: 'website' }

type Line = keyof typeof lines
type Choice = keyof typeof choices
type Section = 'people' | 'staffSpan' | 'links' | 'files' | 'reminder' | 'notes' | Line | Choice

const sections: Section[] = ['people', 'staffSpan', 'links', 'files', ...keysOf(lines), ...keysOf(choices), 'reminder', 'notes']

function keysOf<T extends object>(of: T) {
  return Object.keys(of) as (keyof T)[]
}

const isChoice = (section: Section): section is Choice => section in choices

/** What most events do not need: folded until wanted, open where there is something. */
export function MoreFields({ draft, set, problem, held }: MoreFieldsProps) {
  const isFilled = (section: Section) =>
    isChoice(section)
      ? draft[section] !== keysOf(choices[section])[0]
      : section === 'reminder'
        ? draft.reminder !== null
        : section === 'staffSpan'
          ? Boolean(draft.staffSpan?.before) || Boolean(draft.staffSpan?.after)
          : (draft[section] ?? []).length > 0
  const [open, setOpen] = useState<Section[]>([])
  // What is due takes nobody's time.
  const offered = sections.filter((section) => draft.kind === 'event' || (section !== 'transparency' && section !== 'staffSpan'))
  const isShown = (section: Section) =>
    offered.includes(section) && (isFilled(section) || open.includes(section) || problem?.on(section) !== undefined)
  const folded = offered.filter((section) => !isShown(section))
  return (
    <>
      {isShown('people') && (
        <div className="event-row">
          <h2>{t('people')}</h2>
          <PeopleField people={draft.people ?? []} onChange={(people) => set({ people })} refusal={problem?.on('people')} />
        </div>
      )}
      {isShown('staffSpan') && (
        <div className="event-row">
          <h2>{t('staffSpan')}</h2>
          <div>
            <p className="when-line">
              {(['before', 'after'] as const).map((side) => (
                <Fragment key={side}>
                  <NumberField
                    label={t(`staffSpan_${side}`)}
                    value={draft.staffSpan?.[side] ?? 0}
                    most={1440}
                    step={15}
                    onChange={(minutes) => set({ staffSpan: { before: 0, after: 0, ...draft.staffSpan, [side]: minutes } })}
                  />
                  <span>{t(`minutes_${side}`)}</span>
                </Fragment>
              ))}
            </p>
            <p className="soft">{t('whoSeesStaffSpan')}</p>
            <Refusal text={problem?.on('staffSpan')} />
          </div>
        </div>
      )}
      {isShown('links') && (
        <div className="event-row">
          <h2>{t('links')}</h2>
          <Links draft={draft} set={set} problem={problem} />
        </div>
      )}
      {isShown('files') && (
        <div className="event-row">
          <h2>{t('files')}</h2>
          <FilesField draft={draft} set={set} problem={problem} held={held} />
        </div>
      )}
      {keysOf(lines)
        .filter(isShown)
        .map((line) => (
          <div key={line} className="event-row">
            <h2 id={`${line}-head`}>{fieldName(line)}</h2>
            <div>
              <input
                className="form-control"
                aria-labelledby={`${line}-head`}
                placeholder={lines[line]}
                value={draft[line]}
                aria-invalid={problem?.on(line) !== undefined}
                onChange={(event) => set({ [line]: event.target.value })}
              />
              <Refusal text={problem?.on(line)} />
            </div>
          </div>
        ))}
      {keysOf(choices)
        .filter(isShown)
        .map((choice) => (
          <div key={choice} className="event-row">
            <h2 id={`${choice}-head`}>{fieldName(choice)}</h2>
            <select
              className="form-select"
              aria-labelledby={`${choice}-head`}
              value={draft[choice]}
              onChange={(event) => set({ [choice]: event.target.value })}
            >
              {Object.entries(choices[choice]).map(([word, said]) => (
                <option key={word} value={word}>
                  {said}
                </option>
              ))}
            </select>
          </div>
        ))}
      {isShown('reminder') && (
        <div className="event-row">
          <h2>{fieldName('reminder')}</h2>
          <div>
            <ReminderField
              id="reminder"
              value={draft.reminder ?? null}
              none={t('noReminder')}
              refusal={problem?.on('reminder')}
              onChange={(reminder) => set({ reminder })}
            />
            <p className="soft">{t('remindersInFeedsThatSay')}</p>
          </div>
        </div>
      )}
      {isShown('notes') && (
        <div className="event-row">
          <h2 id="notes-head">{fieldName('notes')}</h2>
          <div>
            <textarea
              className="form-control"
              rows={3}
              aria-labelledby="notes-head"
              value={draft.notes}
              onChange={(event) => set({ notes: event.target.value })}
            />
            <span className="soft">{t('onlyEditorsAndContributorsOf')}</span>
            <Refusal text={problem?.on('notes')} />
          </div>
        </div>
      )}
      {folded.length > 0 && (
        <p className="folded" role="group" aria-label={t('moreToSay')}>
          {folded.map((section) => (
            <button key={section} type="button" className="as-link" onClick={() => setOpen([...open, section])}>
              {fieldName(section)}
            </button>
          ))}
        </p>
      )}
    </>
  )
}

function Links({ draft, set, problem }: MoreFieldsProps) {
  const links = draft.links.length > 0 ? draft.links : [noLink]
  const change = (index: number, part: Partial<Draft['links'][number]>) =>
    set({ links: links.map((link, place) => (place === index ? { ...link, ...part } : link)) })
  return (
    <div>
      {links.map((link, index) => (
        <div key={index} className="link-line">
          <select
            className="form-select"
            aria-label={t('kindOfLinkIndex', { index: index + 1 })}
            value={link.kind}
            onChange={(event) => change(index, { kind: event.target.value as LinkKind })}
          >
            {Object.entries(linkKinds).map(([kind, said]) => (
              <option key={kind} value={kind}>
                {said}
              </option>
            ))}
          </select>
          <input
            className="form-control"
            aria-label={t('labelOfLinkIndex', { index: index + 1 })}
            placeholder={linkKinds[link.kind ?? 'website']}
            value={link.label}
            onChange={(event) => change(index, { label: event.target.value })}
          />
          <input
            className="form-control"
            aria-label={t('addressOfLinkIndex', { index: index + 1 })}
            placeholder="https://"
            value={link.url}
            onChange={(event) => change(index, { url: event.target.value })}
          />
          <button
            type="button"
            className="btn btn-quiet"
            aria-label={t('takeOffLinkIndex', { index: index + 1 })}
            onClick={() => set({ links: links.filter((_, place) => place !== index) })}
          >
            ×
          </button>
        </div>
      ))}
      <button type="button" className="as-link" onClick={() => set({ links: [...links, noLink] })}>
        {t('oneMoreLink')}
      </button>
      <Refusal text={problem?.on('links')} />
    </div>
  )
}
