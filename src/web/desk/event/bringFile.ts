import { apiAddress, askedWith } from '../api'
import { Problem, readProblem } from '../Problem'
import type { EventFile } from '../types'
import { t } from '../words'

/** Brings a file; the event that is saved afterwards names it. */
export async function bringFile(file: File): Promise<EventFile> {
  let response: Response
  try {
    response = await fetch(apiAddress(`/files?name=${encodeURIComponent(file.name)}`), {
      method: 'POST',
      headers: { ...askedWith('POST'), 'Content-Type': 'application/octet-stream' },
      body: file,
    })
  } catch {
    throw new Problem(0, '/problems/unreachable', t('nameCouldNotBeBrought', { name: file.name }))
  }
  if (response.status === 413) throw new Problem(413, '', t('nameIsTooLargeA', { name: file.name }))
  if (!response.ok) throw await readProblem(response)
  return (await response.json()) as EventFile
}
