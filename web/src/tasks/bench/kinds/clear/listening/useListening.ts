import { useCallback, useEffect, useRef, useState } from 'react'
import { TapCatcher } from './catcher'
import { cueSeconds, play, wayTo, type Cue } from './cues'
import { hearFile, hearSimulated, hearTap, wordsOf, type Heard } from './hear'
import { openMicrophone, whyNot, type Device, type Open } from './microphone'

export interface Listening {
  state: 'off' | 'opening' | 'on' | 'simulated'
  level: number
  words: string
  /** Off, and nothing has spoken against listening yet. */
  ready: boolean
  /** The last tap that was heard, refused ones too. */
  last: Heard | null
  device: string
  others: Device[]
  start: () => void
  /** Listen with another microphone. */
  use: (device: string) => void
  simulate: () => void
  stop: () => void
  files: (files: readonly File[]) => void
}

interface Given {
  job: string
  /** The clearing step, and its round. */
  step: string
  lap: number
  /** The rod that is to be tapped next, null when every rod is read. */
  rod: number | null
  /** Rods in the order they are tapped, and how many places the head has. */
  rods: readonly number[]
  count: number
  /** The middle is tapped now instead. */
  middle: boolean
  /** The other head lies on a cloth, and does not ring along. */
  otherMuted: boolean
  keep: (rod: number, heard: Heard) => void
  keepMiddle: (heard: Heard) => void
}

const NEXT_SIMULATED_MS = 450
const AT_ONCE = 2

const byName = (one: File, other: File) => one.name.localeCompare(other.name, undefined, { numeric: true })
const rodsOf = (count: number) => (count === 1 ? '1 rod' : `${count} rods`)

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
  const [ears, setEars] = useState<Pick<Open, 'device' | 'others'>>({ device: '', others: [] })
  const [failed, setFailed] = useState(false)
  const open = useRef<Open | null>(null)
  const catcher = useRef<TapCatcher | null>(null)
  const doubted = useRef(false)
  const underway = useRef(0)

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

  /** A tap was read: keep it, or ask again by sound and sign. */
  const take = useCallback(
    (heard: Heard) => {
      const { rod, rods, count, middle, keep, keepMiddle } = now.current
      setLast(heard)
      if (rod === null && !middle) return
      const where = middle ? 'In the middle' : `Rod ${rod}`
      if (heard.status === 'refuse' || (heard.status === 'flag' && !doubted.current)) {
        doubted.current = heard.status === 'flag'
        setWords(`${where} again: ${heard.reason}.`)
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
    if (!caught.tap || (rod === null && !middle) || underway.current >= AT_ONCE) return
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

  const asked = given.middle ? 'middle' : given.rod
  useEffect(() => {
    if (state !== 'simulated' || asked === null) return
    const rod = asked === 'middle' ? null : asked
    const timer = setTimeout(() => {
      const { job, step, lap, otherMuted, keep, keepMiddle } = now.current
      hearSimulated({ job, step, lap, rod, otherMuted })
        .then((heard) => {
          setLast(heard)
          setWords(heard.status === 'ok' ? '' : `${rod ? `Rod ${rod}` : 'The middle'}: ${heard.reason}.`)
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
  }, [state, asked, given.step, given.lap, given.otherMuted])

  /** A round in one recording, or in many with a tap or more each, in the order of their names. */
  const files = async (chosen: readonly File[]) => {
    const { job, step, lap, rods, rod, otherMuted } = now.current
    let left = rods.slice(rod === null ? 0 : rods.indexOf(rod))
    const said = new Set<string>()
    let [taken, all, read] = [0, 0, 0]
    for (const each of [...chosen].sort(byName)) {
      setWords(`Hearing ${each.name}.`)
      try {
        const {
          taps,
          readings,
          words: ofFile,
        } = await hearFile({ job, step, lap, rod: left[0] ?? null, otherMuted }, left, each)
        for (const one of readings) now.current.keep(one.rod, one.heard)
        left = left.filter((one) => !readings.some((given) => given.rod === one))
        setLast(readings.at(-1)?.heard ?? taps.at(-1) ?? null)
        const refused = taps.filter((tap) => tap.status === 'refuse')
        ;[taken, all, read] = [
          taken + taps.length - refused.length,
          all + taps.length,
          read + readings.length,
        ]
        if (ofFile) said.add(ofFile)
        if (refused[0]) said.add(`One was not: ${refused[0].reason}.`)
      } catch (error) {
        said.add(chosen.length > 1 ? `${each.name}: ${wordsOf(error)}` : wordsOf(error))
      }
    }
    setWords(
      [
        ...(all
          ? [
              `${all === 1 && taken === 1 ? 'The tap was' : `${taken} of ${all} taps`} taken for ${rodsOf(read)}.`,
            ]
          : []),
        ...said,
      ].join(' '),
    )
  }

  return {
    state,
    level,
    words,
    ready: state === 'off' && !failed,
    last,
    ...ears,
    start: () => begin(),
    use: begin,
    simulate: () => setState('simulated'),
    stop,
    files: (chosen) => void files(chosen),
  }
}
