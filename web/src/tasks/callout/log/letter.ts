import type { Schemas } from '../../../api/client'
import type { Book, Drum, Standing, Step } from './fold'

export type LetterForm = Schemas['LetterFormOut']
type Noted = LetterForm['ticks'][number]

export interface DrumNote {
  tag: string
  name: string
  broken: string[]
  done: string[]
  lent: string[]
  buy: string[]
  words: string
}

/** The whole note to the owner; `text` is all of it to send. */
export interface Letter {
  subject: string
  opening: string[]
  drums: DrumNote[]
  words: string
  fine: string[]
  closing: string[]
  signed: string
  text: string
}

const DAY = '{day}'
const ROD = '{rod}'

/** What is still owed, by key, and whether a stop-gap holds it for tonight. */
export function openKeys(book: Book, stands: Standing): Map<string, boolean> {
  const held = new Set<string>()
  const mended = new Set<string>()
  for (const step of book.steps)
    if (stands.done.has(step.id)) for (const key of step.mends) (step.stop_gap ? held : mended).add(key)
  return new Map([...stands.ticks].filter((key) => !mended.has(key)).map((key) => [key, held.has(key)]))
}

const silent = (note: DrumNote): boolean =>
  !(note.broken.length + note.done.length + note.lent.length + note.buy.length) && !note.words

function noted(form: LetterForm, key: string): { tick: Noted; rod: string } | null {
  const [drum, finding, side, rod = ''] = key.split('|')
  const tick = form.ticks.find((each) => each.drum === drum && each.finding === finding && each.side === side)
  return tick ? { tick, rod } : null
}

function said(form: LetterForm, key: string, held: boolean): string[] {
  const found = noted(form, key)
  if (!found) return []
  const words = found.rod ? found.tick.at_rod.replace(ROD, found.rod) : found.tick.words
  return [held ? `${words}, held for tonight` : words]
}

function toBuy(form: LetterForm, keys: string[]): string[] {
  const wanted = new Map<string, number>()
  for (const key of keys) {
    const tick = noted(form, key)?.tick
    if (tick?.buys) wanted.set(tick.buys, tick.counts ? (wanted.get(tick.buys) ?? 0) + 1 : 1)
  }
  return [...wanted].map(([part, count]) => (count > 1 ? `${count} × ${part}` : `1 ${part}`))
}

function gave(step: Step, book: Book): string {
  const taker = book.drums.find((each) => each.tag === step.gives?.taker)?.name ?? step.gives?.taker ?? ''
  return `its batter’s rod ${step.gives?.giver_rod ?? ''} is in ${taker} until there is another`
}

function noteOf(drum: Drum, form: LetterForm, book: Book, stands: Standing): DrumNote {
  const owed = [...openKeys(book, stands)].filter(([key]) => key.split('|')[0] === drum.tag)
  const done = book.steps.filter((step) => stands.done.has(step.id))
  const here = done.filter((step) => step.drum === drum.tag)
  return {
    tag: drum.tag,
    name: drum.name,
    broken: owed.flatMap(([key, held]) => said(form, key, held)),
    done: [...new Set(here.filter((step) => !step.gives).map((step) => step.did))],
    lent: [
      ...here.filter((step) => step.gives).map((step) => step.did),
      ...done.filter((step) => step.gives?.giver === drum.tag).map((step) => gave(step, book)),
    ],
    buy: toBuy(
      form,
      owed.map(([key]) => key),
    ),
    words: drum.tag ? (stands.words.get(drum.tag) ?? '') : '',
  }
}

function textOf(letter: Omit<Letter, 'text'>): string {
  const drums = letter.drums.flatMap((drum) => [
    drum.name,
    ...drum.broken.map((each) => `  Wrong: ${each}`),
    ...drum.done.map((each) => `  Done tonight: ${each}`),
    ...drum.lent.map((each) => `  Lent: ${each}`),
    ...drum.buy.map((each) => `  Worth buying: ${each} (price: ______)`),
    ...(drum.words ? [`  ${drum.words}`] : []),
    '',
  ])
  return [
    'Hello,',
    '',
    ...letter.opening,
    '',
    ...drums,
    ...(letter.words ? [letter.words, ''] : []),
    ...(letter.fine.length ? [`Fine: ${letter.fine.join(', ')}.`, ''] : []),
    ...letter.closing,
    '',
    'With kind regards',
    letter.signed,
  ].join('\n')
}

/** The note as it stands now, the same the core writes (drumwork.callout.letter), so that it can be sent without network. */
export function letterOf(form: LetterForm, book: Book, stands: Standing, on: Date): Letter {
  const notes = book.drums.map((drum) => noteOf(drum, form, book, stands))
  const drums = notes.filter((note) => !silent(note))
  const day = on.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })
  const letter = {
    subject: form.subject.replace(DAY, day),
    opening: [form.opening.replace(DAY, day), drums.length ? form.found : form.nothing],
    drums,
    words: (stands.words.get('') ?? '').trim(),
    fine: notes
      .filter((note) => silent(note) && note.tag && stands.looked.has(note.tag))
      .map(({ name }) => name),
    closing: [
      ...(drums.some((note) => note.buy.length) ? [form.prices] : []),
      ...(drums.some((note) => note.lent.length) ? [form.lent] : []),
      ...(drums.length ? [form.makers] : []),
    ],
    signed: form.signed,
  }
  return { ...letter, text: textOf(letter) }
}
