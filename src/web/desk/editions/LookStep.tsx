import { useState } from 'react'
import type { EditionPreview, EditionView, LookDraft, Problem } from '../api'
import { Refusal } from '../Refusal'
import { usePalettes } from '../queries'
import type { Draft } from './draft'
import { viewWords } from './EditionsPage'
import { Choice, Step, Tick } from './Step'

const views = Object.keys(viewWords) as EditionView[]

const colourWords = {
  page: 'page',
  grid: 'lines',
  busy: 'days with entries',
  empty: 'days without',
  today: 'today',
  text: 'text',
  accent: 'links and marks',
} as const

type ColourPart = keyof typeof colourWords

interface LookStepProps {
  draft: Draft
  preview: EditionPreview | undefined
  problem: Problem | null
  onChange: (look: LookDraft) => void
}

/** How it looks on somebody's page. */
export function LookStep({ draft, preview, problem, onChange }: LookStepProps) {
  const { look } = draft
  const [isMore, setMore] = useState(false)
  const change = (part: Partial<LookDraft>) => onChange({ ...look, ...part })
  const offered = look.views ?? []
  return (
    <Step number={4} title="Look" about="on somebody’s page">
      <p className="sentence">
        Opens as{' '}
        <Choice label="Opens as" value={look.view ?? 'month'} options={viewWords} onChange={(view) => change({ view })} />, and
        the reader may switch to
      </p>
      <div className="ticks" role="group" aria-label="Views that the reader may switch to">
        {views.map((view) => (
          <Tick
            key={view}
            checked={view === look.view || offered.includes(view)}
            disabled={view === look.view}
            onChange={(checked) => change({ views: checked ? [...offered, view] : offered.filter((one) => one !== view) })}
          >
            {viewWords[view]}
          </Tick>
        ))}
      </div>
      <div className="look-texts">
        <label>
          Title on the page
          <input
            className="form-control"
            value={look.title ?? ''}
            placeholder={draft.name || 'the edition’s name'}
            onChange={(event) => change({ title: event.target.value })}
          />
        </label>
        <label>
          Text below it
          <textarea
            className="form-control"
            rows={2}
            value={look.intro ?? ''}
            onChange={(event) => change({ intro: event.target.value })}
          />
        </label>
      </div>
      <Refusal text={problem?.on('look.title') ?? problem?.on('look.intro')} />
      <Colours look={look} preview={preview} problem={problem} onChange={change} />
      <button type="button" className="as-link" aria-expanded={isMore} onClick={() => setMore(!isMore)}>
        {isMore ? 'Less' : 'Week, clock, language, sizes, what a click does …'}
      </button>
      {isMore && <MoreLook look={look} problem={problem} change={change} />}
    </Step>
  )
}

function Colours({
  look,
  preview,
  problem,
  onChange,
}: {
  look: LookDraft
  preview: EditionPreview | undefined
  problem: Problem | null
  onChange: (part: Partial<LookDraft>) => void
}) {
  const palettes = usePalettes().data ?? []
  const [isOwn, setOwn] = useState(look.colours !== null && look.colours !== undefined)
  const palette = palettes.find((one) => one.name === (look.palette ?? 'paper'))
  const shades = look.scheme === 'dark' ? palette?.dark : palette?.light
  const own = look.colours ?? {}
  return (
    <div className="look-colours">
      <p className="sentence">
        Colours{' '}
        <Choice
          label="Colours"
          value={look.palette ?? 'paper'}
          options={Object.fromEntries(palettes.map((one) => [one.name, one.name])) as Record<string, string>}
          onChange={(name) => onChange({ palette: name })}
        />
        ,{' '}
        <Choice
          label="Light or dark"
          value={look.scheme ?? 'reader'}
          options={{ reader: 'light or dark as the page around it, or the reader’s system', light: 'light', dark: 'dark' }}
          onChange={(scheme) => onChange({ scheme })}
        />{' '}
        {preview && (
          <span className="contrast">
            contrast {preview.contrast.toFixed(1)}
            {look.scheme === 'reader' && `, dark ${preview.darkContrast.toFixed(1)}`}
          </span>
        )}
      </p>
      <button type="button" className="as-link" aria-expanded={isOwn} onClick={() => setOwn(!isOwn)}>
        {isOwn ? 'Hide the single colours' : 'Choose colours one by one …'}
      </button>
      {isOwn && (
        <div className="colour-fields">
          {(Object.keys(colourWords) as ColourPart[]).map((part) => (
            <label key={part}>
              <input
                type="color"
                value={(own[part] ?? shades?.[part] ?? '#000000').toLowerCase()}
                onChange={(event) =>
                  onChange({ colours: { ...own, [part]: event.target.value.toUpperCase() } as LookDraft['colours'] })
                }
              />{' '}
              {colourWords[part]}
            </label>
          ))}
          <button type="button" className="as-link" onClick={() => onChange({ colours: null })}>
            All as the palette has them
          </button>
        </div>
      )}
      {(Object.keys(colourWords) as ColourPart[]).map((part) => (
        <Refusal key={part} text={problem?.on(`look.colours.${part}`)} />
      ))}
    </div>
  )
}

function MoreLook({
  look,
  problem,
  change,
}: {
  look: LookDraft
  problem: Problem | null
  change: (part: Partial<LookDraft>) => void
}) {
  return (
    <>
      <div className="ticks">
        <Tick checked={look.navigation} onChange={(navigation) => change({ navigation })}>
          way to other days
        </Tick>
        <Tick checked={look.legend} onChange={(legend) => change({ legend })}>
          legend, to narrow by
        </Tick>
        <Tick checked={look.zoneLabel} onChange={(zoneLabel) => change({ zoneLabel })}>
          says whose time it is
        </Tick>
      </div>
      <p className="sentence">
        Weeks begin{' '}
        <Choice
          label="Weeks begin"
          value={String(look.firstDayOfWeek ?? '')}
          options={
            { '': 'as the organisation has it', '1': 'on Monday', '7': 'on Sunday', '6': 'on Saturday' } as Record<string, string>
          }
          onChange={(day) => change({ firstDayOfWeek: day === '' ? null : Number(day) })}
        />
        , times are{' '}
        <Choice
          label="Times"
          value={look.clock ?? 'reader'}
          options={{ reader: 'as the reader writes them', twelve: '2:00 PM', twentyFour: '14:00' }}
          onChange={(clock) => change({ clock })}
        />
        , dates{' '}
        <Choice
          label="Dates"
          value={look.dates ?? 'short'}
          options={{ short: 'Tue 24 Nov', long: 'Tuesday 24 November', numeric: 'Tue 24/11/2026' }}
          onChange={(dates) => change({ dates })}
        />
      </p>
      <p className="sentence">
        Language{' '}
        <Choice
          label="Language"
          value={look.language ?? ''}
          options={
            { '': 'the reader’s own', en: 'English', de: 'Deutsch', fr: 'Français', ar: 'العربية' } as Record<string, string>
          }
          onChange={(language) => change({ language })}
        />
        , text{' '}
        <Choice
          label="Text size"
          value={look.size ?? 'normal'}
          options={{ small: 'small', normal: 'usual', large: 'large' }}
          onChange={(size) => change({ size })}
        />
        ,{' '}
        <Choice
          label="Density"
          value={look.density ?? 'normal'}
          options={{ airy: 'airy', normal: 'usual', tight: 'tight' }}
          onChange={(density) => change({ density })}
        />
        , corners{' '}
        <Choice
          label="Corners"
          value={look.corner ?? 'square'}
          options={{ square: 'square', soft: 'soft', round: 'round' }}
          onChange={(corner) => change({ corner })}
        />
      </p>
      <p className="sentence">
        A click on an entry{' '}
        <Choice
          label="A click on an entry"
          value={look.onEntry ?? 'details'}
          options={{
            details: 'shows its details there',
            page: 'opens its own page',
            firstLink: 'follows its first link',
            nothing: 'does nothing',
          }}
          onChange={(onEntry) => change({ onEntry })}
        />
      </p>
      <div className="look-texts">
        <label>
          When nothing is on
          <input
            className="form-control"
            value={look.emptyText ?? ''}
            placeholder="Nothing is on in these weeks."
            onChange={(event) => change({ emptyText: event.target.value })}
          />
        </label>
        <label>
          When it cannot load
          <input
            className="form-control"
            value={look.failedText ?? ''}
            placeholder="The newest dates could not be fetched."
            onChange={(event) => change({ failedText: event.target.value })}
          />
        </label>
      </div>
      <Refusal text={problem?.on('look.emptyText') ?? problem?.on('look.failedText')} />
    </>
  )
}
