import { apiAddress, askedWith } from '../api'
import { Problem, readProblem } from '../Problem'
import type { TableBrought } from '../types'
import { t } from './words'

/** Reads a sheet; nothing of it is made yet. */
export async function bringTable(file: File): Promise<TableBrought> {
  let response: Response
  try {
    response = await fetch(apiAddress(`/events/several/file?name=${encodeURIComponent(file.name)}`), {
      method: 'POST',
      headers: { ...askedWith('POST'), 'Content-Type': 'application/octet-stream' },
      body: file,
    })
  } catch {
    throw new Problem(0, '/problems/unreachable', t('couldNotBeBrought', { name: file.name }))
  }
  if (response.status === 413) throw new Problem(413, '', t('isTooLarge', { name: file.name }))
  if (!response.ok) throw await readProblem(response)
  return (await response.json()) as TableBrought
}
