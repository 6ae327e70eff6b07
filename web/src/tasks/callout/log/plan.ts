import { minutesLeft, openSteps, partsLeft, type Book, type Standing, type Step } from './fold'

/** So many tries, and what was found is the best so far; a call-out of thirty steps takes a small part of them. */
const MOST_TRIES = 400_000
const A_HAIR = 1e-6

export interface Task {
  step: Step
  after: string[]
}

interface Search {
  tasks: Task[]
  best: Set<string>
  worth: number
  minutes: number
  tries: number
}

const perMinute = ({ step }: Task): number => step.worth / Math.max(step.minutes, 1e-6)

/** The most that what is left could still win: by worth a minute, the last one in part. */
function atMost(tasks: Task[], from: number, room: number): number {
  let won = 0
  let left = room
  for (let n = from; n < tasks.length; n++) {
    const { step } = tasks[n] as Task
    if (step.worth <= 0) break
    if (step.minutes <= left) {
      won += step.worth
      left -= step.minutes
    } else return won + (step.worth * left) / step.minutes
  }
  return won
}

function parts(left: Map<string, number>, step: Step, by: 1 | -1): void {
  for (const part of step.uses) left.set(part, (left.get(part) ?? 0) + by)
}

/** What must be done with it: itself and all it rests on, or null where that is not to be had. */
function closure(search: Search, task: Task, chosen: Set<string>, out: Set<string>): Task[] | null {
  const found: Task[] = []
  const ask = (each: Task, above: string[]): boolean => {
    if (chosen.has(each.step.id) || found.includes(each)) return true
    if (out.has(each.step.id) || above.includes(each.step.id)) return false
    for (const id of each.after) {
      const before = search.tasks.find((one) => one.step.id === id)
      if (!before || !ask(before, [...above, each.step.id])) return false
    }
    found.push(each)
    return true
  }
  return ask(task, []) ? found : null
}

interface At {
  n: number
  room: number
  left: Map<string, number>
  chosen: Set<string>
  out: Set<string>
  worth: number
  minutes: number
}

function branch(search: Search, at: At): void {
  if (
    at.worth > search.worth + A_HAIR ||
    (Math.abs(at.worth - search.worth) <= A_HAIR && at.minutes < search.minutes - A_HAIR)
  ) {
    search.best = new Set(at.chosen)
    search.worth = at.worth
    search.minutes = at.minutes
  }
  const task = search.tasks[at.n]
  if (!task || ++search.tries > MOST_TRIES) return
  if (at.worth + atMost(search.tasks, at.n, at.room) < search.worth - A_HAIR) return
  if (at.chosen.has(task.step.id)) return branch(search, { ...at, n: at.n + 1 })
  const with_ = closure(search, task, at.chosen, at.out)
  if (with_) {
    const minutes = with_.reduce((sum, { step }) => sum + step.minutes, 0)
    for (const { step } of with_) parts(at.left, step, -1)
    const there = with_.every(({ step }) => step.uses.every((part) => (at.left.get(part) ?? 0) >= 0))
    if (there && minutes <= at.room + A_HAIR)
      branch(search, {
        ...at,
        n: at.n + 1,
        room: at.room - minutes,
        chosen: new Set([...at.chosen, ...with_.map(({ step }) => step.id)]),
        worth: at.worth + with_.reduce((sum, { step }) => sum + step.worth, 0),
        minutes: at.minutes + minutes,
      })
    for (const { step } of with_) parts(at.left, step, 1)
  }
  branch(search, { ...at, n: at.n + 1, out: new Set([...at.out, task.step.id]) })
}

/** The most worth that fits, and of plans worth as much the quickest: by trying all that could still be better. */
export function best(
  minutes: number,
  tasks: Task[],
  left: Map<string, number>,
): { chosen: Set<string>; worth: number; proved: boolean } {
  const search: Search = {
    tasks: [...tasks].sort((a, b) => perMinute(b) - perMinute(a)),
    best: new Set(),
    worth: 0,
    minutes: 0,
    tries: 0,
  }
  branch(search, {
    n: 0,
    room: minutes,
    left: new Map(left),
    chosen: new Set(),
    out: new Set(),
    worth: 0,
    minutes: 0,
  })
  return { chosen: search.best, worth: search.worth, proved: search.tries <= MOST_TRIES }
}

/** What fixing the worst first would win: the plain way, for comparison. */
export function worstFirst(minutes: number, tasks: Task[], there: Map<string, number>): number {
  const left = new Map(there)
  const done = new Set<string>()
  let room = minutes
  let won = 0
  for (;;) {
    const fits = tasks.filter(
      ({ step, after }) =>
        !done.has(step.id) &&
        step.minutes <= room + A_HAIR &&
        after.every((id) => done.has(id)) &&
        step.uses.every((part) => (left.get(part) ?? 0) > 0),
    )
    const [first] = fits.sort((a, b) => b.step.worth - a.step.worth)
    if (!first) return won
    done.add(first.step.id)
    room -= first.step.minutes
    won += first.step.worth
    parts(left, first.step, -1)
  }
}

/** Worth a minute, alone or with what it alone still holds up. */
function promise(task: Task, left: Task[]): number {
  const together = left
    .filter((each) => each.after.includes(task.step.id))
    .map(
      (each) => (task.step.worth + each.step.worth) / Math.max(task.step.minutes + each.step.minutes, 1e-6),
    )
  return Math.max(perMinute(task), ...together)
}

/** Each after what it needs, the lowest phase first, and of those the one that helps most a minute. */
export function inOrder(tasks: Task[], chosen: Set<string>): Step[] {
  const left = tasks.filter(({ step }) => chosen.has(step.id))
  const order: Step[] = []
  while (left.length) {
    const open = left.filter(({ after }) => after.every((id) => !left.some(({ step }) => step.id === id)))
    const first = Math.min(...open.map(({ step }) => step.phase))
    const next = open
      .filter(({ step }) => step.phase === first)
      .reduce((a, b) => (promise(b, left) > promise(a, left) ? b : a))
    order.push(next.step)
    left.splice(left.indexOf(next), 1)
  }
  return order
}

export interface Now {
  current: Step | null
  /** When this device took it in hand; null where it is only proposed. */
  since: number | null
  then: Step[]
  out: Step[]
  others: Step[]
  minutes: number
  needs: number
  worth: number
  /** What fixing the worst first would win in the same minutes. */
  plain: number
  proved: boolean
}

/**
 * The plan for one pair of hands. What others have in hand is theirs; what this device has in hand it finishes.
 * What two took at the same moment, neither knowing of the other, is his who took it first: were it each other’s, it would be nobody’s.
 */
export function planNow(book: Book, stands: Standing, now: number, device: string): Now {
  const steps = new Map(openSteps(book, stands).map((step) => [step.id, step]))
  const inHand = [...stands.hand].flatMap(([of, { step, at }]) => {
    const found = steps.get(step)
    return found ? [{ of, at, step: found }] : []
  })
  inHand.sort((a, b) => a.at - b.at || (a.of < b.of ? -1 : 1))
  const held = inHand.filter((each) => each === inHand.find(({ step }) => step === each.step))
  const others = new Set(held.filter(({ of }) => of !== device).map(({ step }) => step.id))
  const own = held.find(({ of }) => of === device) ?? null
  const minutes = minutesLeft(stands, now)
  const spent = own ? (now - own.at) / 60_000 : 0
  const room = own ? Math.max(0, minutes - Math.max(0, own.step.minutes - spent)) : minutes
  const left = partsLeft(book, stands)
  for (const { step } of held)
    for (const part of step.uses) left.set(part, Math.max(0, (left.get(part) ?? 0) - 1))
  const free = [...steps.values()].filter((step) => !others.has(step.id) && step.id !== own?.step.id)
  const names = new Set(free.map((step) => step.id))
  const tasks = free.map((step) => ({ step, after: step.after.filter((id) => names.has(id)) }))
  const found = best(room, tasks, left)
  const order = inOrder(tasks, found.chosen)
  const waits = (step: Step) => step.after.some((id) => others.has(id))
  const current = own?.step ?? order.find((step) => !waits(step)) ?? null
  const taken = order.reduce((sum, step) => sum + step.minutes, 0)
  return {
    current,
    since: own?.at ?? null,
    then: order.filter((step) => step !== current),
    out: free.filter((step) => !found.chosen.has(step.id) && step !== current),
    others: held.filter(({ step }) => others.has(step.id)).map(({ step }) => step),
    minutes,
    needs: taken + (minutes - room),
    worth: found.worth,
    plain: worstFirst(room, tasks, left),
    proved: found.proved,
  }
}
