// @vitest-environment happy-dom
import { describe, expect, test } from 'vitest'
import { frameOf } from '../../src/web/desk/editions/DeliveryStep'
import { draftOf, emptyDraft, movedPart, presets, usualLine, withoutPart } from '../../src/web/desk/editions/draft'
import { sayFilter } from '../../src/web/desk/editions/SourcesStep'
import type { EditionDraft, FilterDraft } from '../../src/web/desk/types'

describe('the builder', () => {
  test('what was stored comes back whole, and what it does not say is as usual', () => {
    const draft = draftOf({
      name: null,
      sources: [],
      audience: 'link',
      look: { view: 'list', views: null, palette: null },
    } as unknown as EditionDraft)
    expect(draft).toMatchObject({
      name: '',
      audience: 'link',
      cap: 'complete',
      window: { from: 'beginning', to: 'open' },
      look: { view: 'list', views: ['month', 'week', 'list'], palette: 'paper' },
    })
  })

  test('every preset makes an edition that can be', () => {
    for (const { change } of presets) {
      const made = { ...emptyDraft, ...change }
      expect(made.look.views).toContain(made.look.view)
      expect(made.withUnfinished && made.audience !== 'members').toBe(false)
    }
  })

  test('pieces are moved and taken out, and never lost at the ends', () => {
    const pieces = (pattern: typeof usualLine) => pattern.map((part) => part.piece)
    expect(pieces(movedPart(usualLine, 1, -1))).toEqual(['plate', 'time', 'title', 'place'])
    expect(pieces(movedPart(usualLine, 0, -1))).toEqual(['time', 'plate', 'title', 'place'])
    expect(pieces(movedPart(usualLine, 3, 1))).toEqual(['time', 'plate', 'title', 'place'])
    expect(pieces(withoutPart(usualLine, 0))).toEqual(['plate', 'title', 'place'])
  })

  test('a filter is said in words', () => {
    const say = (filter: Partial<FilterDraft> | null) =>
      sayFilter(filter as FilterDraft | null, (id) => (id === '1' ? 'Assessment' : '?'))
    expect(say(null)).toBe('everything')
    expect(say({ mode: 'only', categories: ['1'], tags: ['away'], text: '' })).toBe('only Assessment, #away')
    expect(say({ mode: 'except', text: 'staff' })).toBe('without “staff”')
  })

  test('a frame holds no markup that somebody typed', () => {
    const frame = frameOf('https://dates.example/c/a/b/embed', '"><script>', '300px', '640')
    expect(frame).toContain('width="300" height="640"')
    expect(frame).not.toContain('<script>')
  })
})
