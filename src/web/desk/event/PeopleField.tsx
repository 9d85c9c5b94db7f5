import { useId, useState } from 'react'
import { useLists } from '../lists/queries'
import { Refusal } from '../Refusal'
import type { Involved } from '../types'
import { TimeField } from './TimeField'
import { t } from './words'

interface PeopleFieldProps {
  people: Involved[]
  refusal?: string
  onChange: (people: Involved[]) => void
}

/** What somebody does at it. */
export const parts: Record<NonNullable<Involved['part']>, string> = {
  leads: t('partLeads'),
  helps: t('partHelps'),
  speaks: t('partSpeaks'),
}

const nobody: Involved = { memberId: null, name: '', part: 'leads' }

/** Who is responsible: members, found by what is typed, or any name; with times of their own where they have some. */
export function PeopleField({ people, refusal, onChange }: PeopleFieldProps) {
  const members = useLists().data?.members ?? []
  const id = useId()
  const lines = people.length > 0 ? people : [nobody]
  const change = (index: number, part: Partial<Involved>) =>
    onChange(lines.map((one, place) => (place === index ? { ...one, ...part } : one)))
  return (
    <div>
      {lines.map((one, index) => (
        <Person
          key={index}
          person={one}
          index={index}
          membersList={id}
          onName={(name) =>
            change(index, {
              name,
              memberId: members.find((member) => member.name.toLowerCase() === name.trim().toLowerCase())?.id ?? null,
            })
          }
          onChange={(part) => change(index, part)}
          onTakeOff={() => onChange(lines.filter((_, place) => place !== index))}
        />
      ))}
      <datalist id={id}>
        {members.map((member) => (
          <option key={member.id} value={member.name} />
        ))}
      </datalist>
      <button type="button" className="as-link" onClick={() => onChange([...lines, { ...nobody, part: 'helps' }])}>
        {t('oneMorePerson')}
      </button>
      <p className="soft">{t('toWhomNamesAreTold')}</p>
      <Refusal text={refusal} />
    </div>
  )
}

interface PersonProps {
  person: Involved
  index: number
  membersList: string
  onName: (name: string) => void
  onChange: (part: Partial<Involved>) => void
  onTakeOff: () => void
}

function Person({ person, index, membersList, onName, onChange, onTakeOff }: PersonProps) {
  const [isTimed, setTimed] = useState(Boolean(person.from ?? person.to))
  const number = { index: index + 1 }
  const time = (said: string | null) => (said ? `${said}:00` : undefined)
  return (
    <div className="person-line">
      <input
        className="form-control"
        list={membersList}
        aria-label={t('nameOfPersonIndex', number)}
        placeholder={t('aNameOrAMember')}
        value={person.name}
        onChange={(event) => onName(event.target.value)}
      />
      <select
        className="form-select"
        aria-label={t('partOfPersonIndex', number)}
        value={person.part ?? 'leads'}
        onChange={(event) => onChange({ part: event.target.value as Involved['part'] })}
      >
        {Object.entries(parts).map(([part, said]) => (
          <option key={part} value={part}>
            {said}
          </option>
        ))}
      </select>
      {isTimed ? (
        <span className="own-times">
          <span>{t('personFrom')}</span>
          <TimeField
            id={`person-${index}-from`}
            label={t('fromOfPersonIndex', number)}
            value={person.from?.slice(0, 5) ?? null}
            onChange={(from) => onChange({ from: time(from) })}
          />
          <span>{t('personTo')}</span>
          <TimeField
            id={`person-${index}-to`}
            label={t('toOfPersonIndex', number)}
            value={person.to?.slice(0, 5) ?? null}
            onChange={(to) => onChange({ to: time(to) })}
          />
        </span>
      ) : (
        <button type="button" className="as-link" onClick={() => setTimed(true)}>
          {t('ownTimes')}
        </button>
      )}
      <button type="button" className="btn btn-quiet" aria-label={t('takeOffPersonIndex', number)} onClick={onTakeOff}>
        ×
      </button>
    </div>
  )
}
