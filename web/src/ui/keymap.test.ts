import { describe, expect, it } from 'vitest'
import { KEYMAP } from './keymap'

const all = import.meta.glob<string>('../**/*.{ts,tsx}', { query: '?raw', import: 'default', eager: true })
const sources = Object.entries(all).flatMap(([name, source]) =>
  name.includes('.test.') || name.endsWith('keymap.ts') ? [] : [source],
)

describe('the map of keys', () => {
  it('names every key that stands beside a deed', () => {
    const shown = sources.flatMap((source) =>
      [...source.matchAll(/<Key>(\S)<\/Key>|key: '(\S)'/g)].map((found) =>
        (found[1] ?? found[2] ?? '').toUpperCase(),
      ),
    )
    const known = new Set(KEYMAP.flatMap((each) => each.keys))
    expect(shown.length).toBeGreaterThan(20)
    expect([...new Set(shown)].filter((key) => !known.has(key))).toEqual([])
  })

  it('gives no key two meanings that are in reach at once', () => {
    for (const place of new Set(KEYMAP.map((each) => each.where))) {
      const here = KEYMAP.filter((each) => each.where === place || each.where === '')
        .flatMap((each) => each.keys)
        .filter((key) => key.length === 1 && /[A-Z.?/*+<>[\]]/.test(key))
      expect(
        here.filter((key, n) => here.indexOf(key) !== n),
        place,
      ).toEqual([])
    }
  })
})
