import { Link } from 'react-router'
import { addressOf } from '../dates'
import { shapeOf } from '../shape'
import type { Occurrence } from '../types'
import { useChoosable, useChoosing } from './choosing'

/** The title of a date in a list: opens it, or chooses it with others. */
export function DateLink({ occurrence }: { occurrence: Occurrence }) {
  const { isOn } = useChoosing()
  const choosable = useChoosable(occurrence)
  return (
    <Link to={addressOf(occurrence)} className={`date-link ${shapeOf(occurrence)}`} {...choosable}>
      {isOn && <span className="date-tick" aria-hidden="true" />}
      {occurrence.title}
    </Link>
  )
}
