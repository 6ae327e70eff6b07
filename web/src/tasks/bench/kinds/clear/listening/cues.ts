/** Short ticks, made here, quiet by design. Heard and the next rod is beside it: one tick. Heard and the next lies across: a tick and a higher
 * one. Again: two low ones. The round is heard: three rising. */
export type Cue = 'beside' | 'across' | 'again' | 'done'

const TICKS: Record<Cue, readonly number[]> = {
  beside: [1150],
  across: [1150, 1720],
  again: [420, 420],
  done: [780, 980, 1240],
}
const TICK_S = 0.05
const APART_S = 0.11
const LOUDNESS = 0.08

/** Seconds the cue sounds, so that the ear can be shut meanwhile. */
export const cueSeconds = (cue: Cue): number => TICKS[cue].length * APART_S + 0.08

/** Is the way from one rod to the next a step along the hoop, or across the head? */
export function wayTo(rod: number, next: number | undefined, count: number): Cue {
  if (next === undefined) return 'done'
  const apart = Math.abs(rod - next)
  return Math.min(apart, count - apart) <= 1 ? 'beside' : 'across'
}

export function play(context: AudioContext, cue: Cue): void {
  TICKS[cue].forEach((hz, n) => {
    const from = context.currentTime + n * APART_S
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = hz
    loud.gain.setValueAtTime(LOUDNESS, from)
    loud.gain.exponentialRampToValueAtTime(0.0005, from + TICK_S)
    tone.connect(loud).connect(context.destination)
    tone.start(from)
    tone.stop(from + TICK_S)
  })
}

/** Ratios and strengths of a struck film's partials about its (1,1) pair (Fletcher & Rossing). */
const FAMILY = [
  [1, 1],
  [1.34, 0.35],
  [1.83, 0.12],
] as const
const LOUDEST = 0.18
const RING_S = 1.4

/** A tone at a pitch, with a drum's family and decay; its level is capped. */
export function playTone(context: AudioContext, hz: number): void {
  const from = context.currentTime + 0.02
  for (const [ratio, share] of FAMILY) {
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = hz * ratio
    loud.gain.setValueAtTime(0.0001, from)
    loud.gain.exponentialRampToValueAtTime(LOUDEST * share, from + 0.006)
    loud.gain.exponentialRampToValueAtTime(0.0002, from + RING_S / ratio)
    tone.connect(loud).connect(context.destination)
    tone.start(from)
    tone.stop(from + RING_S)
  }
}
