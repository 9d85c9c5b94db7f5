import type { Day } from '../../shared/days'
import type { Problem, ShownField, WindowDraft } from '../api'
import { Refusal } from '../Refusal'
import type { Draft } from './draft'
import { Choice, Step, Tick } from './Step'

const fieldWords: Record<ShownField, string> = {
  place: 'place',
  category: 'category',
  picture: 'picture',
  description: 'text',
  links: 'links',
  files: 'files',
  contact: 'contact',
}

const allFields = Object.keys(fieldWords) as ShownField[]

interface HowMuchStepProps {
  draft: Draft
  isStandard: boolean
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}

/** For whom, how much of each entry, from when to when. */
export function HowMuchStep({ draft, isStandard, problem, onChange }: HowMuchStepProps) {
  const window = (part: Partial<WindowDraft>) => onChange({ window: { ...draft.window, ...part } })
  const counts = draft.window.to === 'days' || draft.window.to === 'weeks' || draft.window.to === 'months'
  const fields = draft.fields ?? allFields
  return (
    <Step number={2} title="How much" about="for whom, from when to when">
      <p className="sentence">
        {isStandard ? (
          'For whoever the calendar is open to,'
        ) : (
          <>
            For{' '}
            <Choice
              label="For whom"
              value={draft.audience}
              options={{ everyone: 'everyone', link: 'those with the link', members: 'members' }}
              onChange={(audience) => onChange({ audience, withUnfinished: audience === 'members' && draft.withUnfinished })}
            />
          </>
        )}{' '}
        at most{' '}
        <Choice
          label="How much of each entry"
          value={draft.cap ?? 'complete'}
          options={{ complete: 'all there is', headline: 'the headline', times: 'when it is busy' }}
          onChange={(cap) => onChange({ cap })}
        />
      </p>
      <p className="sentence">
        From{' '}
        <Choice
          label="From when"
          value={draft.window.from ?? 'beginning'}
          options={{
            beginning: 'the beginning',
            now: 'now',
            today: 'today',
            week: 'start of this week',
            month: 'start of this month',
            term: 'start of term',
            date: 'a day',
          }}
          onChange={(from) => window({ from })}
        />
        {draft.window.from === 'date' && (
          <InlineDay label="First day" value={draft.window.fromDate} onChange={(fromDate) => window({ fromDate })} />
        )}{' '}
        to{' '}
        {counts && (
          <input
            type="number"
            min="1"
            className="form-control inline-number"
            aria-label="How many"
            value={draft.window.count ?? ''}
            onChange={(event) => window({ count: event.target.value === '' ? null : Number(event.target.value) })}
          />
        )}{' '}
        <Choice
          label="To when"
          value={draft.window.to ?? 'open'}
          options={{
            days: 'days ahead',
            weeks: 'weeks ahead',
            months: 'months ahead',
            endOfMonth: 'end of month',
            endOfTerm: 'end of term',
            endOfYear: 'end of the year plan',
            date: 'a day',
            open: 'no end',
          }}
          onChange={(to) => window({ to, count: draft.window.count ?? 2 })}
        />
        {draft.window.to === 'date' && (
          <InlineDay label="Last day" value={draft.window.toDate} onChange={(toDate) => window({ toDate })} />
        )}{' '}
        <span className="kept-together">
          at most{' '}
          <input
            type="number"
            min="1"
            className="form-control inline-number"
            aria-label="At most so many entries"
            placeholder="all"
            value={draft.limit ?? ''}
            onChange={(event) => onChange({ limit: event.target.value === '' ? null : Number(event.target.value) })}
          />{' '}
          entries
        </span>
      </p>
      {['window.count', 'window.fromDate', 'window.toDate', 'limit', 'cap', 'audience'].map((field) => (
        <Refusal key={field} text={problem?.on(field)} />
      ))}
      <div className="ticks">
        <Tick
          checked={draft.window.withPast ?? true}
          disabled={draft.window.from === 'now'}
          onChange={(withPast) => window({ withPast })}
        >
          with what is over
        </Tick>
        <Tick checked={draft.withCancelled} onChange={(withCancelled) => onChange({ withCancelled })}>
          with what is cancelled
        </Tick>
        <Tick checked={draft.withBreaks} onChange={(withBreaks) => onChange({ withBreaks })}>
          breaks of the year plan
        </Tick>
        {draft.audience === 'members' && !isStandard && (
          <Tick checked={draft.withUnfinished} onChange={(withUnfinished) => onChange({ withUnfinished })}>
            drafts, and what waits for sign-off
          </Tick>
        )}
        <Tick checked={draft.mergesLookAlikes} onChange={(mergesLookAlikes) => onChange({ mergesLookAlikes })}>
          look-alikes become one
        </Tick>
        <Tick checked={draft.tellsPlatesOfBusy} onChange={(tellsPlatesOfBusy) => onChange({ tellsPlatesOfBusy })}>
          plates on busy times
        </Tick>
      </div>
      <p className="soft">The same event on several calendars is always one entry, with all their plates.</p>
      <fieldset className="ticks">
        <legend>Shown of each entry, where the detail allows it</legend>
        {allFields.map((field) => (
          <Tick
            key={field}
            checked={fields.includes(field)}
            onChange={(checked) => {
              const next = allFields.filter((one) => (one === field ? checked : fields.includes(one)))
              onChange({ fields: next.length === allFields.length ? null : next })
            }}
          >
            {fieldWords[field]}
          </Tick>
        ))}
      </fieldset>
    </Step>
  )
}

interface InlineDayProps {
  label: string
  value: Day | null | undefined
  onChange: (day: Day | undefined) => void
}

/** A day in a sentence. */
function InlineDay({ label, value, onChange }: InlineDayProps) {
  return (
    <input
      type="date"
      className="form-control inline-day"
      aria-label={label}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || undefined)}
    />
  )
}
