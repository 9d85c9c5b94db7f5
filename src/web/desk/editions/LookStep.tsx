import { useState } from 'react'
import type { Problem } from '../Problem'
import type { EditionPreview, EditionView, LookDraft } from '../types'
import { Refusal } from '../Refusal'
import { usePalettes } from './queries'
import type { Draft } from './draft'
import { viewWords } from './EditionsPage'
import { Choice, Step, Tick } from './Step'
import { t } from './words'

const views = Object.keys(viewWords) as EditionView[]

const colourWords = {
  page: t('page'),
  grid: t('lines'),
  busy: t('daysWithEntries'),
  empty: t('daysWithout'),
  today: t('today'),
  text: t('text'),
  accent: t('linksAndMarks'),
} as const

const paletteNames: Record<string, string> = { paper: t('paper'), quay: t('quay'), heath: t('heath'), plain: t('plain') }

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
    <Step number={4} title={t('look')} about={t('onSomebodysPage')}>
      <p className="sentence">
        {t('opensAs')}{' '}
        <Choice label={t('opensAs')} value={look.view ?? 'month'} options={viewWords} onChange={(view) => change({ view })} />
        {t('andTheReaderMaySwitch')}
      </p>
      <div className="ticks" role="group" aria-label={t('viewsThatTheReaderMay')}>
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
          {t('titleOnThePage')}
          <input
            className="form-control"
            value={look.title ?? ''}
            placeholder={draft.name || t('theEditionsName')}
            onChange={(event) => change({ title: event.target.value })}
          />
        </label>
        <label>
          {t('textBelowIt')}
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
        {isMore ? t('less') : t('weekClockLanguageSizesWhat')}
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
        {t('colours')}{' '}
        <Choice
          label={t('colours')}
          value={look.palette ?? 'paper'}
          options={
            Object.fromEntries(palettes.map((one) => [one.name, paletteNames[one.name] ?? one.name])) as Record<string, string>
          }
          onChange={(name) => onChange({ palette: name })}
        />
        ,{' '}
        <Choice
          label={t('lightOrDark')}
          value={look.scheme ?? 'reader'}
          options={{ reader: t('lightOrDarkAsThe'), light: t('light'), dark: t('dark') }}
          onChange={(scheme) => onChange({ scheme })}
        />{' '}
        {preview && (
          <span className="contrast">
            {t(look.scheme === 'reader' ? 'contrastOfBoth' : 'contrast', {
              light: preview.contrast.toFixed(1),
              dark: preview.darkContrast.toFixed(1),
            })}
          </span>
        )}
      </p>
      <button type="button" className="as-link" aria-expanded={isOwn} onClick={() => setOwn(!isOwn)}>
        {isOwn ? t('hideTheSingleColours') : t('chooseColoursOneByOne')}
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
            {t('allAsThePaletteHas')}
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
          {t('wayToOtherDays')}
        </Tick>
        <Tick checked={look.legend} onChange={(legend) => change({ legend })}>
          {t('legendToNarrowBy')}
        </Tick>
        <Tick checked={look.zoneLabel} onChange={(zoneLabel) => change({ zoneLabel })}>
          {t('saysWhoseTimeItIs')}
        </Tick>
        <Tick checked={look.picturesInMonth ?? false} onChange={(picturesInMonth) => change({ picturesInMonth })}>
          {t('picturesInTheMonth')}
        </Tick>
      </div>
      <p className="sentence">
        {t('weeksBegin')}{' '}
        <Choice
          label={t('weeksBegin')}
          value={String(look.firstDayOfWeek ?? '')}
          options={
            { '': t('asTheOrganisationHasIt'), '1': t('onMonday'), '7': t('onSunday'), '6': t('onSaturday') } as Record<
              string,
              string
            >
          }
          onChange={(day) => change({ firstDayOfWeek: day === '' ? null : Number(day) })}
        />
        {t('commaTimesAre')}{' '}
        <Choice
          label={t('times')}
          value={look.clock ?? 'reader'}
          options={{ reader: t('asTheReaderWritesThem'), twelve: t('twoOClock'), twentyFour: '14:00' }}
          onChange={(clock) => change({ clock })}
        />
        {t('commaDates')}{' '}
        <Choice
          label={t('dates')}
          value={look.dates ?? 'short'}
          options={{ short: t('shortDate'), long: t('longDate'), numeric: t('numericDate') }}
          onChange={(dates) => change({ dates })}
        />
      </p>
      <p className="sentence">
        {t('language')}{' '}
        <Choice
          label={t('language')}
          value={look.language ?? ''}
          options={
            { '': t('theReadersOwn'), en: 'English', de: 'Deutsch', fr: 'Français', ar: 'العربية' } as Record<string, string>
          }
          onChange={(language) => change({ language })}
        />
        {t('commaText')}{' '}
        <Choice
          label={t('textSize')}
          value={look.size ?? 'normal'}
          options={{ small: t('small'), normal: t('usual'), large: t('large') }}
          onChange={(size) => change({ size })}
        />
        ,{' '}
        <Choice
          label={t('density')}
          value={look.density ?? 'normal'}
          options={{ airy: t('airy'), normal: t('usual'), tight: t('tight') }}
          onChange={(density) => change({ density })}
        />
        {t('commaCorners')}{' '}
        <Choice
          label={t('corners')}
          value={look.corner ?? 'square'}
          options={{ square: t('square'), soft: t('soft'), round: t('round') }}
          onChange={(corner) => change({ corner })}
        />
      </p>
      <p className="sentence">
        {t('aClickOnAnEntry')}{' '}
        <Choice
          label={t('aClickOnAnEntry')}
          value={look.onEntry ?? 'details'}
          options={{
            details: t('showsItsDetailsThere'),
            page: t('opensItsOwnPage'),
            firstLink: t('followsItsFirstLink'),
            nothing: t('doesNothing'),
          }}
          onChange={(onEntry) => change({ onEntry })}
        />
      </p>
      <div className="look-texts">
        <label>
          {t('whenNothingIsOn')}
          <input
            className="form-control"
            value={look.emptyText ?? ''}
            placeholder={t('nothingIsOnInThese')}
            onChange={(event) => change({ emptyText: event.target.value })}
          />
        </label>
        <label>
          {t('whenItCannotLoad')}
          <input
            className="form-control"
            value={look.failedText ?? ''}
            placeholder={t('theNewestDatesCouldNot')}
            onChange={(event) => change({ failedText: event.target.value })}
          />
        </label>
      </div>
      <Refusal text={problem?.on('look.emptyText') ?? problem?.on('look.failedText')} />
    </>
  )
}
