import type { CalloutBody } from '../../../api/outbox'
import type { LetterForm } from '../log/letter'
import { fold, type Book, type Drum, type Entered, type Standing, type Step } from '../log/fold'

const tick = (finding: string, side: string, words: string, rod = false, usual = true) => ({
  finding,
  side,
  words,
  rod,
  usual,
  degree: 2,
})

const drum = (tag: string, name: string, rods: number): Drum => ({
  tag,
  name,
  kind: tag === 'S' ? 'snare' : 'floor-tom',
  role: tag === 'S' ? 'snare' : 'tom',
  rods_batter: rods,
  rods_resonant: rods,
  bed_rods: [],
  ticks: [
    tick('rod-missing', 'resonant', 'rod missing, bottom head', true),
    tick('rattle', '', 'rattles'),
    tick('leg-missing', '', 'leg missing'),
    tick('age', 'batter', 'batter old', false, false),
  ],
  size: '14 in',
  thread: '',
  note: '',
})

const step = (id: string, of: string, more: Partial<Step>): Step => ({
  id,
  drum: of,
  title: id,
  beside: '',
  did: `${id} done`,
  why: 'because',
  minutes: 2,
  worth: 4,
  phase: 1,
  when: [],
  unless: [],
  after: [],
  uses: [],
  mends: [],
  stop_gap: false,
  gives: null,
  caution: '',
  ...more,
})

const gap = 'F|rod-missing|resonant|3'

export const book: Book = {
  drums: [drum('S', 'Siskin', 10), drum('F', 'Serin', 8)],
  known: [],
  refused: [],
  steps: [
    step('S rattle', 'S', { title: 'Press and snug', when: ['S|rattle||'], mends: ['S|rattle||'] }),
    step('F rattle', 'F', { title: 'Press and snug', when: ['F|rattle||'], mends: ['F|rattle||'], worth: 3 }),
    step('F leg', 'F', {
      title: 'Drumstick in the bracket',
      when: ['F|leg-missing||'],
      mends: ['F|leg-missing||'],
      uses: ['drumstick'],
      stop_gap: true,
      minutes: 1,
      worth: 8,
      caution: 'Only what holds safely.',
    }),
    step('F rod 3', 'F', {
      title: 'Lend rod 3',
      beside: 'from Siskin’s batter, 1',
      when: [gap],
      unless: ['short:S'],
      mends: [gap],
      uses: [`one:${gap}`, 'giver:S'],
      gives: {
        giver: 'S',
        giver_name: 'Siskin',
        giver_rods: 10,
        giver_rod: 1,
        taker: 'F',
        taker_side: 'resonant',
        taker_rods: 8,
        taker_rod: 3,
      },
      worth: 5,
    }),
  ],
}

export const form: LetterForm = {
  subject: 'it, {day}',
  opening: 'we played it on {day}.',
  found: 'Here is what we saw.',
  nothing: 'Nothing.',
  prices: 'Prices.',
  lent: 'Lent.',
  makers: 'Makers.',
  signed: 'Ines',
  ticks: book.drums.flatMap(({ tag, ticks }) =>
    ticks.map(({ finding, side, words, rod }) => ({
      drum: tag,
      finding,
      side,
      words: `${words} here`,
      at_rod: `${words} at {rod}`,
      buys: rod ? 'tension rod' : '',
      counts: rod,
    })),
  ),
}

export const START = Date.parse('2026-04-01T19:40:00Z')

export const log = (...bodies: CalloutBody[]): Entered[] =>
  bodies.map((body, n) => ({
    id: String(n),
    by: 'Ines',
    device: 'phone',
    at: new Date(START + n).toISOString(),
    body,
  }))

export const standing = (...bodies: CalloutBody[]): Standing => fold(book, log(...bodies))
