import { useCallback, useEffect, useRef, useState } from 'react'
import { TapCatcher } from '../../../../../ui/ear/catcher'
import { cueSeconds, play, wayTo, type Cue } from './cues'
import { hearSimulated, hearTap, wordsOf, type Heard } from './hear'
import { hearFiles } from './recordings'
import type { Given } from './given'
import { openMicrophone, whyNot, type Open } from '../../../../../ui/ear/microphone'
import type { Listening } from './listening'

const NEXT_SIMULATED_MS = 450
const AT_ONCE = 2
/** Nobody turns the next rod faster: a tap so soon after the last is the same rod again. */
const TURNING_MS = 1200

/** Where a tap was heard: a second candidate can be taken there and then only. */
interface At {
  rod: number | 'middle'
  step: string
  lap: number
  between: number
}

const SETTLES: Record<string, string> = {
  middle: ' One tap in the middle would settle it.',
  mute: ' With the other head muted it would be plain.',
}
const doubtOf = ({ reason, ask }: Heard) => `${reason}.${SETTLES[ask ?? ''] ?? ''}`

/** Ears for the bench: taps from the microphone, the simulated drum or a file become readings, rod after rod. */
export function useListening(given: Given): Listening {
  const now = useRef(given)
  useEffect(() => {
    now.current = given
  })
  const [state, setState] = useState<Listening['state']>('off')
  const [level, setLevel] = useState(0)
  const [words, setWords] = useState('')
  const [last, setLast] = useState<Heard | null>(null)
  const [lastAt, setLastAt] = useState<At | null>(null)
  const [ears, setEars] = useState<Pick<Open, 'device' | 'others'>>({ device: '', others: [] })
  const [failed, setFailed] = useState(false)
  const open = useRef<Open | null>(null)
  const catcher = useRef<TapCatcher | null>(null)
  const doubted = useRef(false)
  const underway = useRef(0)
  const keptAt = useRef(0)

  const cue = useCallback((kind: Cue) => {
    if (!open.current) return
    play(open.current.context, kind)
    catcher.current?.deafen(cueSeconds(kind))
  }, [])
  const stop = useCallback(() => {
    open.current?.close()
    open.current = null
    catcher.current = null
    setState('off')
    setLevel(0)
  }, [])
  useEffect(() => stop, [stop])

  const note = (heard: Heard | null, rod: At['rod'] | null) => {
    const { step, lap, between } = now.current
    setLast(heard)
    setLastAt(rod === null ? null : { rod, step, lap, between })
  }
  /** A tap was read: keep it, or ask again by sound and sign. */
  const take = useCallback(
    (heard: Heard) => {
      const { rod, rods, count, middle, keep, keepMiddle } = now.current
      note(heard, middle ? 'middle' : rod)
      if (rod === null && !middle) return
      const where = middle ? 'In the middle' : `Rod ${rod}`
      if (heard.status === 'refuse' || (heard.status === 'flag' && !doubted.current)) {
        doubted.current = heard.status === 'flag'
        setWords(`${where} again: ${doubtOf(heard)}`)
        cue('again')
        return
      }
      doubted.current = false
      if (middle || rod === null) {
        keepMiddle(heard)
        setWords('The middle is heard.')
        cue('done')
        return
      }
      keep(rod, heard)
      keptAt.current = performance.now()
      if (now.current.turns_32 !== null) {
        setWords(`Rod ${rod} heard: what is left is worked out.`)
        cue('beside')
        return
      }
      const way = wayTo(rod, rods[rods.indexOf(rod) + 1], count)
      setWords(way === 'done' ? 'The round is heard.' : `Rod ${rod} heard.`)
      cue(way)
    },
    [cue],
  )

  const onBlock = (block: Float32Array, rate: number) => {
    catcher.current ??= new TapCatcher(rate)
    const caught = catcher.current.feed(block)
    setLevel(caught.level)
    const { job, step, lap, rod, middle, otherMuted } = now.current
    const turning = now.current.turns_32 !== null
    if (!caught.tap || (rod === null && !middle) || underway.current >= (turning ? 1 : AT_ONCE)) return
    if (turning && performance.now() - keptAt.current < TURNING_MS) return
    underway.current++
    performance.mark('tap-caught')
    hearTap({ job, step, lap, rod: middle ? null : rod, otherMuted }, caught.tap, rate)
      .then(take)
      .catch((error: unknown) => setWords(wordsOf(error)))
      .finally(() => underway.current--)
  }
  const onGone = () => {
    stop()
    setFailed(true)
    setWords('The microphone went away. What was heard is kept; typing still works.')
  }
  const begin = (device?: string) => {
    stop()
    setState('opening')
    setWords('')
    openMicrophone(onBlock, onGone, device)
      .then((opened) => {
        open.current = opened
        setEars(opened)
        setState('on')
        setFailed(false)
        setWords('Listening. Tap once, let it ring.')
      })
      .catch((error: unknown) => {
        setState('off')
        setFailed(true)
        setWords(whyNot(error))
      })
  }

  // Between turns only until it is kept: after that the same rod may be asked for another turn.
  const there = lastAt?.step === given.step && lastAt.lap === given.lap && lastAt.between === given.between
  const takeSecond = () => {
    const second = last?.second
    if (!second || !there) return
    const instead = { ...last, typed: second.typed, hz: second.hz, second: null, ask: null }
    if (lastAt.rod === 'middle') given.keepMiddle(instead)
    else given.keep(lastAt.rod, instead)
    doubted.current = false
    setLast(instead)
    setWords(
      `${lastAt.rod === 'middle' ? 'The middle' : `Rod ${lastAt.rod}`}: ${second.hz.toFixed(1)} Hz is taken instead.`,
    )
  }

  const asked = given.middle ? 'middle' : given.rod
  useEffect(() => {
    if (state !== 'simulated' || asked === null) return
    const rod = asked === 'middle' ? null : asked
    const timer = setTimeout(() => {
      const { job, step, lap, otherMuted, turns_32, keep, keepMiddle } = now.current
      hearSimulated({ job, step, lap, rod, otherMuted, turns_32: turns_32 ?? 0 })
        .then((heard) => {
          note(heard, rod ?? 'middle')
          setWords(heard.status === 'ok' ? '' : `${rod ? `Rod ${rod}` : 'The middle'}: ${doubtOf(heard)}`)
          if (!heard.typed) return // it would say the same again; muting the other head taps it once more
          if (rod) keep(rod, heard)
          else keepMiddle(heard)
        })
        .catch((error: unknown) => {
          setState('off')
          setWords(wordsOf(error))
        })
    }, NEXT_SIMULATED_MS)
    return () => clearTimeout(timer)
  }, [state, asked, given.step, given.lap, given.otherMuted, given.between])

  return {
    state,
    level,
    words,
    ready: state === 'off' && !failed,
    last: last && !there ? { ...last, second: null, ask: null } : last,
    takeSecond,
    ...ears,
    start: () => begin(),
    use: begin,
    simulate: () => setState('simulated'),
    stop,
    files: (chosen) => void hearFiles(chosen, () => now.current, { words: setWords, last: note }),
  }
}
