import type { components } from '../shared/api.generated'
import type { Answer, Method, Sent } from './addresses'
import { seenAs } from './seeAs'
import { t } from './words'

type Schemas = components['schemas']
export type Calendar = Schemas['CalendarResponse']
export type CalendarRequest = Schemas['CalendarRequest']
export type Disclosure = Schemas['DisclosureBody']
export type Detail = Schemas['Detail']
export type Occurrence = Schemas['OccurrenceResponse']
/** One that is there has its days and its zone. */
export type CalendarEvent = Schemas['EventResponse'] & { date: string; endDate: string; zone: string }
export const onItsDays = (event: Schemas['EventResponse']) => event as CalendarEvent
export type EventForm = Required<Schemas['EventForm']>
export type Repeat = Schemas['RepeatDraft']
export type Consequences = Schemas['ConsequencesResponse']
export type Destinations = Schemas['DestinationsResponse']
export type Destination = Schemas['DestinationBody']
export type ConsequencesRequest = Schemas['ConsequencesRequest']
export type MonthPosition = Schemas['MonthPosition']
export type Skip = NonNullable<Schemas['Skip']>
export type ChangeRequest = Schemas['ChangeRequest']
export type ChangePreview = Schemas['ChangePreview']
export type ChangeDone = Schemas['ChangeResponse']
export type Foreseen = Schemas['ForeseenBody']
export type Revision = Schemas['RevisionResponse']
export type Binned = Schemas['BinResponse']
export type LineReading = Schemas['LineResponse']
export type TableRow = Omit<Schemas['TableRow'], 'isEmpty'>
export type SeveralReading = Schemas['SeveralResponse']
export type YearPlan = Schemas['YearPlanResponse']
export type YearPlanRequest = Schemas['YearPlanRequest']
export type Impact = Schemas['ImpactResponse']
export type BreaksRead = Schemas['BreaksRead']
export type Lists = Schemas['ListsResponse']
export type DayInfo = Schemas['DayResponse']
export type CalendarRole = Schemas['CalendarRole']
export type WhoSees = Schemas['WhoSeesBody']
export type EventFile = Schemas['EventFileBody']
export type About = Schemas['AboutBody']
export type Opening = Schemas['OpeningBody']
export type Group = Schemas['GroupResponse']
export type SecretLink = Schemas['LinkResponse']
export type People = Schemas['PeopleResponse']
export type Member = Schemas['MemberResponse']
export type Invitation = Schemas['InvitationResponse']
export type RoleOn = Schemas['CalendarRoleBody']
export type AuditLine = Schemas['AuditResponse']
export type Submission = Schemas['SubmissionResponse']
export type Proposal = Schemas['ProposalResponse']
export type InvitationShown = Schemas['InvitationShown']
export type EditionLine = Schemas['EditionLine']
export type EditionDraft = Schemas['EditionDraft']
export type Edition = Schemas['EditionResponse']
export type EditionPreview = Schemas['EditionPreview']
export type EditionDelivery = Schemas['EditionDelivery']
export type LookDraft = Schemas['LookDraft']
export type WindowDraft = Schemas['WindowDraft']
export type FilterDraft = Schemas['FilterDraft']
export type PatternPart = Schemas['PatternPartDraft']
export type EditionView = Schemas['EditionView']
export type Piece = NonNullable<Schemas['PatternPartDraft']['piece']>
export type ShownField = Schemas['ShownField']
export type PaletteChoice = Schemas['PaletteChoice']
export type Publishing = Schemas['PublishingResponse']
export type Session = Schemas['SessionResponse']
export type Membership = Schemas['MembershipBody']
export type Organisation = Schemas['OrganisationResponse']
export type Year = Schemas['YearResponse']
export type Zone = Schemas['ZoneResponse']
export type Failing = Schemas['FailingResponse']
export type FailureReason = Schemas['FailureReason']
export type Colour = Schemas['ColourResponse']

type Refusal = Schemas['RefusalBody']
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

const pathname = typeof location === 'undefined' ? '' : location.pathname

/** Which organisation the address is about, as its beginning: "/at/pinewick"; empty where it does not say. */
export const at = /^\/at\/[^/]+/.exec(pathname)?.[0] ?? ''

/** An address of the API, for links, pictures and frames. */
export const apiAddress = (path: string) => `${at}/api${path}`

let antiforgeryToken = ''

export function rememberToken(session: Session): Session {
  antiforgeryToken = session.antiforgeryToken
  return session
}

/** Asks the API; which addresses there are, what is sent and what comes back is as its OpenAPI document says. */
export async function call<M extends Method, Address extends string>(
  method: M,
  path: Address,
  ...[body, { signal, once } = {}]: Sent<M, Address>
): Promise<Answer<M, Address>> {
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (method !== 'GET') headers['X-Valtro-Token'] = antiforgeryToken
  if (body !== undefined) headers['Content-Type'] = 'application/json'
  if (once) headers['Idempotency-Key'] = once
  let response: Response
  try {
    response = await fetch(apiAddress(method === 'GET' ? lookedAt(path) : path), {
      method,
      headers,
      body: body === undefined ? undefined : JSON.stringify(body),
      signal,
    })
  } catch (unreachable) {
    if (signal?.aborted) throw unreachable
    throw new Problem(0, '/problems/unreachable', t('valtroDoesNotAnswerWhat'))
  }
  if (!response.ok) throw await readProblem(response)
  return (response.status === 204 ? undefined : await response.json()) as Answer<M, Address>
}

/** A name for something that is to be done once, however often it has to be asked for. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** While somebody looks at things as others see them, everything is asked for as those others get it. */
function lookedAt(path: string): string {
  const audience = seenAs()
  return audience === null ? path : `${path}${path.includes('?') ? '&' : '?'}as=${audience}`
}

/** Brings a file; the event that is saved afterwards names it. */
export async function bringFile(file: File): Promise<EventFile> {
  let response: Response
  try {
    response = await fetch(apiAddress(`/files?name=${encodeURIComponent(file.name)}`), {
      method: 'POST',
      headers: { Accept: 'application/json', 'X-Valtro-Token': antiforgeryToken, 'Content-Type': 'application/octet-stream' },
      body: file,
    })
  } catch {
    throw new Problem(0, '/problems/unreachable', t('nameCouldNotBeBrought', { name: file.name }))
  }
  if (response.status === 413) throw new Problem(413, '', t('nameIsTooLargeA', { name: file.name }))
  if (!response.ok) throw await readProblem(response)
  return (await response.json()) as EventFile
}

async function readProblem(response: Response): Promise<Problem> {
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
