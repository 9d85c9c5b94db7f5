import type { components } from '../shared/api.generated'
import { t } from './words'

type Refusal = components['schemas']['RefusalBody']
/** A field that somebody else saved otherwise; `form` names the fields of the form that say it. */
export type MergeField = NonNullable<Refusal['differing']>[number]

/** What the API refused (RFC 9457), or that it could not be reached. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    /** Unreachable says the client itself; empty where no word came with the refusal. */
    readonly type: Refusal['type'] | '/problems/unreachable' | '',
    detail: string,
    readonly errors: Record<string, string[]> = {},
    /** What is stored now, when somebody else saved first. */
    readonly current: unknown = null,
    /** Field by field what they say and what was typed, where that is known. */
    readonly differing: MergeField[] = [],
  ) {
    super(detail)
  }

  /** The sentence for a field, if the refusal concerns it. */
  on(field: string): string | undefined {
    return this.errors[field]?.join(' ')
  }
}

/** What an answer refuses. */
export async function readProblem(response: Response): Promise<Problem> {
  try {
    const problem: Partial<Refusal> = await response.json()
    return new Problem(
      response.status,
      problem.type ?? '',
      problem.detail ?? problem.title ?? response.statusText,
      problem.errors ?? {},
      problem.current,
      problem.differing ?? [],
    )
  } catch {
    return new Problem(response.status, '', t('valtroAnsweredWithAnError', { status: response.status }))
  }
}
