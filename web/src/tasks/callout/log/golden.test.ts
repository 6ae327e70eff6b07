import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { entered, fold, openSteps, partsLeft, type Book, type Callout, type Entered } from './fold'
import { letterOf, type Letter, type LetterForm } from './letter'
import { planNow } from './plan'

interface Case {
  log: Entered[]
  now: string
  stands: Record<string, unknown>
  open: string[]
  parts: Record<string, number>
  minutes: number
  worth: number
  proved: boolean
  needs: number
  letter: Letter
}

// Made by tools/golden_callouts.py from the core: its fold, its plan by CP-SAT and its note; `./test --web` makes them anew.
const { book, form, cases } = JSON.parse(readFileSync('../.data/golden_callouts.json', 'utf8')) as {
  book: Book
  form: LetterForm
  cases: Case[]
}

describe('a call-out on the phone', () => {
  it('stands as the core says it does, and may do the same', () => {
    expect(cases.length).toBeGreaterThan(100)
    for (const each of cases) {
      const stands = fold(book, each.log)
      expect({
        ticks: [...stands.ticks].sort(),
        looked: [...stands.looked].sort(),
        bag: Object.fromEntries(stands.bag),
        done: [...stands.done.keys()].sort(),
        skipped: [...stands.skipped].sort(),
        cannot: [...stands.cannot.keys()].sort(),
        words: Object.fromEntries(stands.words),
        over: stands.over !== null,
        reported: stands.reported !== null,
        answered: stands.answered !== null,
        hand: Object.fromEntries([...stands.hand].map(([device, { step }]) => [device, step])),
      }).toEqual(each.stands)
      expect(openSteps(book, stands).map((step) => step.id)).toEqual(each.open)
      expect(Object.fromEntries(partsLeft(book, stands))).toEqual(each.parts)
    }
  })

  it('wins as much in the minutes there are as the exact plan of the core', () => {
    for (const each of cases) {
      const stands = fold(book, each.log)
      const now = planNow(book, stands, Date.parse(each.now), 'b')
      expect(each.proved && now.proved).toBe(true)
      expect(now.minutes).toBeCloseTo(each.minutes, 6)
      expect(now.worth).toBeCloseTo(each.worth, 6)
      const order = [...(now.current ? [now.current] : []), ...now.then]
      const gone = new Map(partsLeft(book, stands))
      for (const step of order) {
        for (const part of step.uses) {
          const left = (gone.get(part) ?? 0) - 1
          gone.set(part, step === now.current ? Math.max(0, left) : left) // in hand already, whatever there is
        }
        if (step === now.current && now.since !== null) continue // begun before what it rests on was ticked
        const here = order.indexOf(step)
        for (const id of step.after) expect(order.findIndex((one) => one.id === id)).toBeLessThan(here)
      }
      expect(Math.min(0, ...gone.values())).toBe(0)
    }
  })

  it('writes the owner the same note, word for word', () => {
    for (const each of cases)
      expect(letterOf(form, book, fold(book, each.log), new Date(2026, 3, 1))).toEqual(each.letter)
    expect(new Set(cases.map(({ letter }) => letter.text)).size).toBeGreaterThan(80)
  })

  it('counts what this device has entered like what the server told, once', () => {
    const [first] = cases.filter(({ log }) => log.length > 5)
    const log = first?.log ?? []
    const callout = { id: 'c', events: log.slice(0, 3) } as unknown as Callout
    const mine = log.slice(2).map((each) => ({
      log: 'callout',
      job: 'c',
      state: 'waiting',
      event: { id: each.id, device: each.device, made_at: each.at, body: each.body },
    })) as never
    expect(entered(callout, mine).map((each) => each.id)).toEqual(log.map((each) => each.id))
  })
})
