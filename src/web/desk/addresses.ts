import type { paths } from '../shared/api.generated'

/*
 * What the OpenAPI document says of an address as it is written in the code: `/calendars/${id}/link` is the path
 * "/api/calendars/{id}/link" of the document. An address that the document does not know, a method that it does not have and a
 * body of another shape do not compile.
 */

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

type Key = keyof paths & `/api/${string}`

/** What stands before the query. */
type WithoutQuery<Address extends string> = Address extends `${infer Path}?${string}` ? Path : Address

type Pieces<Path extends string> = Path extends `${infer First}/${infer Rest}` ? [First, ...Pieces<Rest>] : [Path]

/** Whether a piece is put in when the code runs: an object with keys of a type with a hole in it may be empty. */
type IsPutIn<Piece extends string> = Record<never, never> extends Record<Piece, 1> ? true : false

type IsPiece<Said extends string, Written extends string> = Said extends `{${string}}`
  ? IsPutIn<Written>
  : Said extends Written
    ? Written extends Said
      ? true
      : false
    : false

type Matches<Said, Written> = Said extends [infer S extends string, ...infer SaidRest]
  ? Written extends [infer W extends string, ...infer WrittenRest]
    ? IsPiece<S, W> extends true
      ? Matches<SaidRest, WrittenRest>
      : false
    : false
  : Written extends []
    ? true
    : false

type PiecesOf = { [K in Key]: K extends `/api${infer Path}` ? Pieces<Path> : never }

type Found<Written> = { [K in Key]: Matches<PiecesOf[K], Written> extends true ? K : never }[Key]

/** The path of the document; never where it has none. */
type PathOf<Address extends string> = Found<Pieces<WithoutQuery<Address>>>

type Operation<M extends Method, Address extends string> = Address extends string
  ? paths[PathOf<Address>] extends infer Item
    ? Lowercase<M> extends keyof Item
      ? NonNullable<Item[Lowercase<M>]>
      : never
    : never
  : never

type Json<Content> = Content extends { content: { 'application/json': infer Body } } ? Body : undefined

type Success = 200 | 201 | 204

/** What comes back. */
export type Answer<M extends Method, Address extends string> =
  Operation<M, Address> extends { responses: infer Responses } ? Json<Responses[keyof Responses & Success]> : never

interface Options {
  signal?: AbortSignal
  /** Asked again under this name it is not done again. */
  once?: string
}

/** What is sent with it. */
export type Sent<M extends Method, Address extends string> = [Operation<M, Address>] extends [never]
  ? ['The OpenAPI document has no such address']
  : Operation<M, Address> extends { requestBody: infer Body }
    ? [body: Json<Body>, options?: Options]
    : [body?: undefined, options?: Options]
