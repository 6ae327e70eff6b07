import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { CalloutBody } from '../../api/outbox'
import { Bag } from './Bag'
import { ClockDialog } from './ClockDialog'
import type { Callout } from './log/fold'
import { best, planNow } from './log/plan'
import { Plan } from './Plan'
import { Note } from './Note'
import { book, form, standing, START } from './tests/book'
import { Walk } from './Walk'
import { minutesWords, whyOut } from './words'

afterEach(cleanup)

const entering = () => vi.fn<(body: CalloutBody) => void>()
const nothing = () => undefined
const rattle = (drum: string): CalloutBody => ({ kind: 'ticked', drum, finding: 'rattle', degree: 2 })
const leg: CalloutBody = { kind: 'ticked', drum: 'F', finding: 'leg-missing', degree: 2 }
const gap: CalloutBody = {
  kind: 'ticked',
  drum: 'F',
  finding: 'rod-missing',
  side: 'resonant',
  rod: 3,
  degree: 2,
}
const clock = (minutes: number): CalloutBody => ({ kind: 'clock', minutes })

function showPlan(...bodies: CalloutBody[]) {
  const stands = standing(...bodies)
  const enter = entering()
  const plan = planNow(book, stands, START, 'phone')
  render(<Plan {...{ book, stands, enter, plan }} may now={START} onWalk={nothing} onNote={nothing} />)
  return enter
}

describe('walking a kit', () => {
  it('takes one press a drum that sounds fine, and tells who was walked last', () => {
    const enter = entering()
    const walked = vi.fn()
    render(<Walk {...{ book, enter }} stands={standing()} may onWalked={walked} />)
    fireEvent.click(screen.getByText('Sounds fine'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'fine', drum: 'S' })
    expect(screen.getByRole('heading', { level: 2 }).textContent).toBe('Serin')
    fireEvent.keyDown(window, { key: ' ' })
    expect(enter).toHaveBeenLastCalledWith({ kind: 'fine', drum: 'F' })
    expect(walked).toHaveBeenCalledOnce()
  })

  it('ticks and takes back, and asks at which rod', () => {
    const enter = entering()
    render(<Walk {...{ book, enter }} stands={standing(rattle('S'))} may onWalked={nothing} />)
    fireEvent.click(screen.getByText('Siskin', { selector: 'button' }))
    fireEvent.click(screen.getByText('rattles'))
    expect(enter).toHaveBeenLastCalledWith({
      kind: 'not_so',
      drum: 'S',
      finding: 'rattle',
      side: null,
      rod: null,
    })
    fireEvent.click(screen.getByText(/rod missing/))
    fireEvent.click(screen.getByText('7'))
    expect(enter).toHaveBeenLastCalledWith(
      expect.objectContaining({ kind: 'ticked', finding: 'rod-missing', side: 'resonant', rod: 7 }),
    )
    expect(screen.queryByText('batter old')).toBeNull()
    fireEvent.click(screen.getByText('something else'))
    expect(screen.getByText('batter old')).toBeTruthy()
  })

  it('begins anew at the first drum once all were looked at', () => {
    const stands = standing({ kind: 'fine', drum: 'S' }, { kind: 'fine', drum: 'F' })
    render(<Walk {...{ book, stands }} enter={entering()} may onWalked={nothing} />)
    expect(screen.getByRole('heading', { level: 2 }).textContent).toBe('Siskin')
  })

  it('shows and enters nothing for who looks on only', () => {
    const enter = entering()
    render(<Walk {...{ book, enter }} stands={standing()} may={false} onWalked={nothing} />)
    fireEvent.click(screen.getByText('rattles'))
    fireEvent.keyDown(window, { key: ' ' })
    expect(enter).not.toHaveBeenCalled()
  })
})

describe('the one thing now', () => {
  it('is taken in hand by itself, done by one press, and can be opened again', () => {
    const enter = showPlan(clock(12), gap)
    expect(enter).toHaveBeenCalledWith({ kind: 'took', step: 'F rod 3' })
    expect(screen.getByRole('img', { name: 'Rod 1 of Siskin goes to rod 3 of Serin' })).toBeTruthy()
    fireEvent.click(screen.getByText('Done, lent'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'done', step: 'F rod 3' })
    fireEvent.click(screen.getByText(/undo lend rod 3/))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'open_again', step: 'F rod 3' })
  })

  it('can be skipped and cannot be, by key too', () => {
    const enter = showPlan(clock(12), rattle('S'))
    fireEvent.keyDown(window, { key: 's' })
    expect(enter).toHaveBeenLastCalledWith({ kind: 'skipped', step: 'S rattle' })
    fireEvent.click(screen.getByText('Cannot'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'cannot', step: 'S rattle', words: '' })
  })

  it('says so when there is no time, nothing to do, or nothing that fits', () => {
    const told = () => screen.getAllByRole('heading', { level: 2 })[0]?.textContent
    showPlan(clock(0), rattle('S'))
    expect(told()).toBe('They play')
    cleanup()
    showPlan(clock(12))
    expect(told()).toBe('Nothing to do')
    cleanup()
    showPlan(clock(12), leg)
    expect(told()).toBe('Nothing more fits')
    expect(screen.getByText('Serin, no drumstick in the bag')).toBeTruthy()
    cleanup()
    const enter = showPlan(rattle('S'))
    expect(told()).toBe('The clock is not running')
    expect(enter).not.toHaveBeenCalled()
  })

  it('stands with its caution where it is not without danger', () => {
    showPlan(clock(12), leg, { kind: 'bagged', part: 'drumstick', count: 1 })
    expect(screen.getByText('Only what holds safely.')).toBeTruthy()
  })
})

describe('the clock', () => {
  it('is set anew when they are late or early, and ends the call-out when they play', () => {
    const enter = entering()
    const over = vi.fn()
    render(
      <ClockDialog stands={standing(clock(12))} left={8.04} enter={enter} onClose={nothing} onOver={over} />,
    )
    fireEvent.click(screen.getByText('+5'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'clock', minutes: 13 })
    fireEvent.click(screen.getByText('5 min'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'clock', minutes: 5 })
    fireEvent.click(screen.getByText('They play: stop here'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'over' })
    expect(over).toHaveBeenCalledOnce()
  })

  it('tells minutes as a clock does', () => {
    expect([minutesWords(8 + 2 / 3), minutesWords(0.5), minutesWords(-3)]).toEqual(['8:40', '0:30', '0:00'])
  })
})

describe('the bag', () => {
  it('has what the record asks for first, counts it, and starts the clock', () => {
    const enter = entering()
    const begun = vi.fn()
    const callout = {
      minutes: 12,
      book,
      bag: [{ part: 'tension rod', number: 2, why: 'on record: Serin' }],
    } as unknown as Callout
    render(<Bag {...{ callout, enter }} stands={standing()} may onBegin={begun} />)
    expect(screen.getByText('bring 2; on record: Serin')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'One drumstick more' }))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'bagged', part: 'drumstick', count: 1 })
    fireEvent.click(screen.getByText('Start the clock: 12 min'))
    expect(enter).toHaveBeenLastCalledWith({ kind: 'clock', minutes: 12 })
    expect(begun).toHaveBeenCalledOnce()
  })
})

describe('planning on the phone', () => {
  it('says why what is left out is left out', () => {
    const [drumstick, lend] = [book.steps[2], book.steps[3]]
    if (!drumstick || !lend) throw new Error('the book has four steps')
    expect(whyOut(drumstick, new Map(), [])).toBe('no drumstick in the bag')
    expect(whyOut(lend, new Map([['giver:S', 1]]), [{ ...lend, id: 'x', uses: ['giver:S'] }])).toBe(
      'that drum gives its rod elsewhere',
    )
    expect(whyOut(lend, new Map(), [])).toBe('no minutes left for it')
  })

  it('finds the best of thirty steps with a few tries', () => {
    const [first] = book.steps
    if (!first) throw new Error('the book has steps')
    const tasks = Array.from({ length: 30 }, (_, n) => ({
      step: { ...first, id: String(n), minutes: 1 + ((n * 7) % 5) / 2, worth: 1 + ((n * 13) % 11), uses: [] },
      after: n % 4 === 3 ? [String(n - 1)] : [],
    }))
    const found = best(12, tasks, new Map())
    expect(found.proved).toBe(true)
    const chosen = tasks.filter(({ step }) => found.chosen.has(step.id))
    expect(chosen.reduce((sum, { step }) => sum + step.minutes, 0)).toBeLessThanOrEqual(12)
    for (const { after } of chosen) expect(after.every((id) => found.chosen.has(id))).toBe(true)
  })

  it('tells what fixing the worst first would win instead', () => {
    const quick = {
      ...book,
      steps: book.steps.map((each) => (each.gives ? each : { ...each, minutes: 1, worth: 3 })),
    }
    const plan = planNow(quick, standing(clock(2), gap, rattle('S'), rattle('F')), START, 'phone')
    expect([plan.worth, plan.plain]).toEqual([6, 5])
  })

  it('leaves to others what they have in hand', () => {
    const stands = standing(clock(12), rattle('S'), rattle('F'))
    stands.hand.set('tablet', { step: 'S rattle', at: START })
    const plan = planNow(book, stands, START, 'phone')
    expect(plan.current?.id).toBe('F rattle')
    expect(plan.others.map((step) => step.id)).toEqual(['S rattle'])
  })

  it('gives what two took at the same moment to who took it first, and the other something else', () => {
    const stands = standing(clock(12), rattle('S'), rattle('F'))
    stands.hand.set('phone', { step: 'S rattle', at: START + 1 })
    stands.hand.set('tablet', { step: 'S rattle', at: START })
    const [phone, tablet] = ['phone', 'tablet'].map((device) => planNow(book, stands, START, device))
    expect([tablet?.current?.id, phone?.current?.id]).toEqual(['S rattle', 'F rattle'])
    expect([tablet?.others.length, phone?.others.length]).toEqual([0, 1])
  })
})

it('lets what is in hand be finished though the minutes are over, and says then that they play', () => {
  const enter = showPlan(clock(0), rattle('S'), { kind: 'took', step: 'S rattle' })
  fireEvent.click(screen.getByText('Done'))
  expect(enter).toHaveBeenLastCalledWith({ kind: 'done', step: 'S rattle' })
  cleanup()
  showPlan(clock(0), rattle('S'), { kind: 'took', step: 'S rattle' }, { kind: 'done', step: 'S rattle' })
  expect(screen.getByText('They play')).toBeTruthy()
})

describe('the word to the owner', () => {
  const show = (enter: (body: CalloutBody) => void) => {
    const callout = { id: 'c1', last_seq: 0, book } as unknown as Callout
    const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
    render(
      <QueryClientProvider client={queries}>
        <Note
          {...{ callout, book, form, enter }}
          stands={standing(rattle('S'))}
          on={new Date(START)}
          may
          waiting
        />
      </QueryClientProvider>,
    )
  }

  it('is kept while it is typed, though the page is left at once, and entered when one goes on', () => {
    vi.stubGlobal('fetch', () => new Promise(() => undefined))
    show(entering())
    expect(screen.getByText('rattles here')).toBeTruthy() // without network it is the whole note already
    expect(screen.getByText(/^we played it on 1 April/)).toBeTruthy()
    expect(screen.queryByText('PDF')).toBeNull()
    fireEvent.change(screen.getByRole('textbox'), { target: { value: 'It stands on carpet.' } })
    cleanup()
    const enter = entering()
    show(enter)
    const field = screen.getByRole('textbox')
    expect((field as HTMLTextAreaElement).value).toBe('It stands on carpet.')
    fireEvent.blur(field)
    expect(enter).toHaveBeenCalledWith({ kind: 'worded', drum: '', words: 'It stands on carpet.' })
    vi.unstubAllGlobals()
  })
})
