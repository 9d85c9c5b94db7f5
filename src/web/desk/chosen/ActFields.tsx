import { Plate } from '../../shared/Plate'
import { useLists, usePlacesToType } from '../lists/queries'
import type { Calendar, ChosenAct } from '../types'
import { useYearPlans } from '../year/queries'
import type { ActName } from './ChosenDialog'
import { t } from './words'

/** What is said of an act; each reads what it needs. */
export interface Said {
  act: ChosenAct
  count: string
  unit: 'days' | 'weeks'
  direction: 'later' | 'earlier'
  calendarId: string
  categoryId: string | null
  text: string
  /** The id of a year, a blank, and the term's name. */
  term: string
}

const firsts: Record<ActName, ChosenAct> = {
  move: 'move',
  calendar: 'calendar',
  alsoOn: 'placeOn',
  category: 'category',
  tags: 'addTag',
  place: 'place',
  out: 'letOut',
  cancel: 'cancel',
  remove: 'remove',
  copy: 'copy',
  endWithPlan: 'endWithPlan',
  skipBreaks: 'skipBreaks',
}

/** Under one button there may be an act and what takes it back. */
const pairs = {
  alsoOn: ['placeOn', 'takeOff'],
  tags: ['addTag', 'takeTag'],
  out: ['letOut', 'draft'],
  cancel: ['cancel', 'restore'],
} as const

export const startOf = (act: ActName): Said => ({
  act: firsts[act],
  count: '1',
  unit: 'weeks',
  direction: 'later',
  calendarId: '',
  categoryId: null,
  text: '',
  term: '',
})

/** Enough is said to see what it would do. */
export function isSaid({ act, count, calendarId, categoryId, text, term }: Said): boolean {
  if (act === 'move') return /^[1-9]\d{0,3}$/.test(count.trim())
  if (act === 'calendar' || act === 'placeOn' || act === 'takeOff') return calendarId !== ''
  if (act === 'category') return categoryId !== null
  if (act === 'addTag' || act === 'takeTag') return text.trim() !== ''
  return act !== 'copy' || term !== ''
}

interface ActFieldsProps {
  act: ActName
  said: Said
  calendars: Calendar[]
  onChange: (said: Said) => void
}

export function ActFields({ act, said, calendars, onChange }: ActFieldsProps) {
  const set = (change: Partial<Said>) => onChange({ ...said, ...change })
  const pair = act in pairs ? pairs[act as keyof typeof pairs] : []
  return (
    <div className="chosen-fields">
      {pair.length > 0 && (
        <span className="joined" role="group" aria-label={t('whatToDo')}>
          {pair.map((one) => (
            <button key={one} type="button" aria-pressed={said.act === one} onClick={() => set({ act: one })}>
              {t(`pair_${one}`)}
            </button>
          ))}
        </span>
      )}
      {said.act === 'move' && <MoveFields said={said} set={set} />}
      {(said.act === 'calendar' || said.act === 'placeOn' || said.act === 'takeOff') && (
        <CalendarOptions calendars={calendars} value={said.calendarId} onChange={(calendarId) => set({ calendarId })} />
      )}
      {said.act === 'category' && <CategoryField value={said.categoryId} onChange={(categoryId) => set({ categoryId })} />}
      {(said.act === 'addTag' || said.act === 'takeTag') && (
        <label>
          {t('tag')}{' '}
          <input
            className="form-control"
            autoFocus
            maxLength={40}
            value={said.text}
            onChange={(event) => set({ text: event.target.value })}
          />
        </label>
      )}
      {said.act === 'place' && <PlaceField value={said.text} onChange={(text) => set({ text })} />}
      {said.act === 'copy' && <TermField value={said.term} onChange={(term) => set({ term })} />}
    </div>
  )
}

function MoveFields({ said, set }: { said: Said; set: (change: Partial<Said>) => void }) {
  return (
    <span className="chosen-move">
      <label>
        {t('by')}{' '}
        <input
          className="form-control"
          inputMode="numeric"
          autoFocus
          size={4}
          maxLength={4}
          aria-invalid={!isSaid(said)}
          value={said.count}
          onChange={(event) => set({ count: event.target.value })}
        />
      </label>
      <select
        className="form-select"
        aria-label={t('daysOrWeeks')}
        value={said.unit}
        onChange={(event) => set({ unit: event.target.value as Said['unit'] })}
      >
        <option value="weeks">{t('weeks')}</option>
        <option value="days">{t('days')}</option>
      </select>
      <select
        className="form-select"
        aria-label={t('laterOrEarlier')}
        value={said.direction}
        onChange={(event) => set({ direction: event.target.value as Said['direction'] })}
      >
        <option value="later">{t('later')}</option>
        <option value="earlier">{t('earlier')}</option>
      </select>
      {!isSaid(said) && <span className="refusal">{t('aNumberFrom1')}</span>}
    </span>
  )
}

interface ChoiceProps {
  value: string
  onChange: (value: string) => void
}

function CalendarOptions({ calendars, value, onChange }: ChoiceProps & { calendars: Calendar[] }) {
  const offered = calendars
    .filter((one) => one.mayEdit && one.mayContribute)
    .sort((one, other) => one.name.localeCompare(other.name))
  const chosen = offered.find((one) => one.id === value)
  return (
    <label>
      {t('calendar')}{' '}
      <select className="form-select" autoFocus value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{t('choose')}</option>
        {offered.map((one) => (
          <option key={one.id} value={one.id}>
            {one.plate} {one.name}
          </option>
        ))}
      </select>{' '}
      {chosen && <Plate code={chosen.plate} colour={chosen.colour} />}
    </label>
  )
}

function CategoryField({ value, onChange }: { value: string | null; onChange: (value: string | null) => void }) {
  const categories = useLists().data?.categories ?? []
  return (
    <label>
      {t('category')}{' '}
      <select
        className="form-select"
        autoFocus
        value={value ?? 'unsaid'}
        onChange={(event) => onChange(event.target.value === 'unsaid' ? null : event.target.value)}
      >
        <option value="unsaid">{t('choose')}</option>
        <option value="">{t('noCategory')}</option>
        {categories.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  )
}

function PlaceField({ value, onChange }: ChoiceProps) {
  const names = usePlacesToType()
  return (
    <label>
      {t('place')}{' '}
      <input
        className="form-control"
        autoFocus
        list="chosen-places"
        maxLength={200}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id="chosen-places">
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>{' '}
      <span className="soft">{value.trim() === '' && t('emptyTakesThePlaceAway')}</span>
    </label>
  )
}

function TermField({ value, onChange }: ChoiceProps) {
  const plans = useYearPlans().data?.plans ?? []
  return (
    <label>
      {t('intoTerm')}{' '}
      <select className="form-select" autoFocus value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{t('choose')}</option>
        {plans.map((plan) => (
          <optgroup key={plan.id} label={plan.name}>
            {plan.terms.map((term) => (
              <option key={term.name} value={`${plan.id} ${term.name}`}>
                {term.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>{' '}
      <span className="soft">{t('copyAbout')}</span>
    </label>
  )
}
