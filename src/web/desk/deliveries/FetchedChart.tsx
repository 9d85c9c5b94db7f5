import { AxisBottom, AxisLeft } from '@visx/axis'
import { PatternLines } from '@visx/pattern'
import { scaleBand, scaleLinear } from '@visx/scale'
import { Bar } from '@visx/shape'
import { useEffect, useId, useRef, useState } from 'react'
import { sayDay } from '../../shared/days'
import type { Deliveries, Organisation } from '../types'
import { t } from './words'

type Days = Deliveries['days']

const HEIGHT = 258
const ABOVE = 8
const BELOW = 26
const BESIDE = 34
const MOST_NAMED = 14
const FALLBACK_WIDTH = 720

/** Programs that fetched, a bar for each day: with what was newest on that day, and with something older on top. */
export function FetchedChart({ days, organisation }: { days: Days; organisation: Organisation }) {
  const [box, width] = useWidth()
  const pattern = useId().replace(/[^\w-]/g, '')
  const most = Math.max(4, ...days.map((day) => day.programs))
  const across = scaleBand({ domain: days.map((one) => one.day), range: [BESIDE, width], padding: 0.14 })
  const up = scaleLinear({ domain: [0, most], range: [HEIGHT - BELOW, ABOVE], nice: 4 })
  const every = Math.ceil(days.length / Math.min(MOST_NAMED, Math.max(3, Math.floor(width / 44))))
  const say = (day: string, isLast: boolean) =>
    sayDay(day, organisation.locale, isLast ? { day: 'numeric', month: 'short' } : { day: 'numeric' })
  const named = days.filter((_, index) => (days.length - 1 - index) % every === 0).map((one) => one.day)
  return (
    <div ref={box} className="fetched-chart">
      <svg width={width} height={HEIGHT} role="img" aria-label={`${t('byDay')}. ${summary(days)}`}>
        <PatternLines
          id={pattern}
          width={6}
          height={6}
          strokeWidth={2}
          className="older-line"
          orientation={['diagonalRightToLeft']}
        />
        <AxisLeft scale={up} left={BESIDE} numTicks={3} hideTicks tickFormat={String} axisClassName="chart-axis" />
        {days.map((day) => (
          <g key={day.day}>
            <title>{`${sayDay(day.day, organisation.locale, { weekday: 'long', day: 'numeric', month: 'long' })}: ${day.programs}`}</title>
            <Bar
              className="bar-newest"
              x={across(day.day)}
              width={across.bandwidth()}
              y={up(day.withNewest)}
              height={up(0) - up(day.withNewest)}
            />
            {day.programs > day.withNewest && (
              <Bar
                className="bar-older"
                fill={`url(#${pattern})`}
                x={across(day.day)}
                width={across.bandwidth()}
                y={up(day.programs)}
                height={up(day.withNewest) - up(day.programs)}
              />
            )}
            {day.lateMinutes > 0 && (
              <text
                className="late-mark"
                x={(across(day.day) ?? 0) + across.bandwidth() / 2}
                y={up(day.programs) - 4}
                textAnchor="middle"
              >
                !
              </text>
            )}
          </g>
        ))}
        <AxisBottom
          scale={across}
          top={HEIGHT - BELOW}
          tickValues={named}
          hideTicks
          tickFormat={(day) => say(day, day === days.at(-1)?.day)}
          axisClassName="chart-axis"
        />
      </svg>
      <p className="chart-key soft">
        <span>
          <i className="key-newest" aria-hidden="true" /> {t('withNewest')}
        </span>
        <span>
          <i className="key-older" aria-hidden="true" /> {t('withOlder')}
        </span>
      </p>
      {days
        .filter((day) => day.lateMinutes > 0)
        .map((day) => (
          <p key={day.day} className="chart-late soft">
            {t('lateOn', {
              day: sayDay(day.day, organisation.locale, { day: 'numeric', month: 'long' }),
              count: day.lateMinutes,
            })}
          </p>
        ))}
    </div>
  )
}

function summary(days: Days): string {
  const programs = days.map((day) => day.programs)
  return t('byDaySummary', { least: Math.min(...programs), most: Math.max(...programs) })
}

/** The same numbers to be read. */
export function FetchedTable({ days, organisation }: { days: Days; organisation: Organisation }) {
  return (
    <details className="chart-table">
      <summary>{t('asTable')}</summary>
      <div className="table-scroll">
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">{t('day')}</th>
              <th scope="col">{t('programs')}</th>
              <th scope="col">{t('withNewest')}</th>
              <th scope="col">{t('times')}</th>
              <th scope="col">{t('readers')}</th>
              <th scope="col">{t('opened')}</th>
            </tr>
          </thead>
          <tbody>
            {days.toReversed().map((day) => (
              <tr key={day.day}>
                <th scope="row">{sayDay(day.day, organisation.locale, { weekday: 'short', day: 'numeric', month: 'short' })}</th>
                <td>{day.programs}</td>
                <td>{day.withNewest}</td>
                <td>{day.times}</td>
                <td>{day.readers}</td>
                <td>{day.views}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}

function useWidth() {
  const element = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(FALLBACK_WIDTH)
  useEffect(() => {
    if (!element.current || typeof ResizeObserver === 'undefined') return
    const observer = new ResizeObserver(([entry]) => entry && setWidth(Math.max(220, Math.floor(entry.contentRect.width))))
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [])
  return [element, width] as const
}
