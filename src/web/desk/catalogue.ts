import { listed as listedIn, translating, type Messages, type Translate } from '../shared/words'
import { language } from './language'

type Loaders = Record<string, () => Promise<unknown>>

/**
 * Loads the messages of one part of the desk in the language of this page. Called at the head of each part's `words.ts`,
 * so that whoever imports a part's words has them, and no screen carries the words of another.
 */
export async function catalogue<All extends Messages>(loaders: Loaders): Promise<Translate<All>> {
  const load = Object.entries(loaders).find(([path]) => path.includes(`/${language}/`))?.[1]
  if (!load) throw new Error(`There are no words in “${language}”.`)
  return translating<All>((await load()) as Messages, language)
}

/** "a, b and c". */
export const listed = (names: readonly string[]) => listedIn(names, language)
