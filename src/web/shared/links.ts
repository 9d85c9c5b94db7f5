import type { components } from './api.generated'

type EventLink = components['schemas']['EventLink']
type LinkKind = components['schemas']['LinkKind']

/** What a link is called: by its own words, else by its kind; a website by its host. */
export function linkName(
  { label, url, kind = 'website' }: EventLink,
  kinds: Record<Exclude<LinkKind, 'website'>, string>,
): string {
  if (label) return label
  return kind === 'website' ? hostOf(url) : kinds[kind]
}

/** The address itself where it has no host, or is none that a browser knows. */
function hostOf(url: string): string {
  return (URL.canParse(url) && new URL(url).host) || url
}
