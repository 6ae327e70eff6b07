import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { fold, spotWords, type Walk } from './fold'

interface Case {
  drums: string[]
  log: { id: string; body: Walk['events'][number]['body'] }[]
  looks: Record<string, Record<string, unknown>>
  spot: { rods: number; atRod: boolean; at: { x: number; y: number }; words: string }
}

// Made by tools/golden_walks.py from the core's own fold; `./test --web` makes them anew.
const cases = JSON.parse(readFileSync('../.data/golden_walks.json', 'utf8')) as Case[]

const walkOf = ({ drums, log }: Case): Walk =>
  ({ id: 'w', drums: drums.map((tag) => ({ tag })), events: log }) as unknown as Walk

/** As if every entry lay on this device and the server had told none. */
const own = ({ log }: Case) =>
  log.map(({ id, body }) => ({ log: 'walk', job: 'w', state: 'waiting', event: { id, body } })) as never

function told(look: ReturnType<typeof fold> extends Map<string, infer L> ? L : never) {
  const { marks, again, gone, out, looked, notHere, overruled } = look
  const sorted = (rows: Set<number>) => [...rows].sort((a, b) => a - b)
  return { marks, again: sorted(again), gone: sorted(gone), out, looked, notHere, overruled }
}

describe('a walk on the device', () => {
  it('stands as the core says it does, whether the server told of it or not', () => {
    expect(cases.length).toBeGreaterThan(200)
    for (const each of cases) {
      const walk = walkOf(each)
      const bare = { ...walk, events: [] }
      for (const looks of [fold(walk, []), fold(bare, own(each))])
        for (const [tag, look] of looks) expect(told(look)).toEqual(each.looks[tag])
    }
  })

  it('says where a spot is in the words of the core', () => {
    for (const { spot } of cases) expect(spotWords(spot.at, spot.rods, spot.atRod)).toBe(spot.words)
  })
})
