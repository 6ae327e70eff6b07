/** Catches taps out of a stream of sound: a level that adapts to the room, silence before the stroke, and the ring after it. */

const BEFORE_S = 0.12
const RING_S = 1.05
const LEAST_RING_S = 0.45
/** A stroke stands this far over the room. */
const OVER_ROOM = 4.5
const LEAST_PEAK = 0.004
const ROOM_RISES_S = 1.5
const ROOM_FALLS_S = 0.25

export interface Caught {
  /** One tap, when its ring has been heard to the end. */
  tap: Float32Array | null
  /** Loudest sample of this block, and of the room. */
  level: number
  room: number
  ringing: boolean
}

const peakOf = (block: Float32Array): number =>
  block.reduce((most, each) => Math.max(most, Math.abs(each)), 0)

export class TapCatcher {
  private kept: Float32Array[] = []
  private room = 0.002
  private ringing = false
  private since = 0
  private least = 1
  private deafFor = 0

  /** `ringS`: how long after the stroke it goes on; given, it goes on so long whether anything rings or not. */
  constructor(
    readonly rate: number,
    private readonly ringS?: number,
  ) {}

  /** Deaf for a moment, so that the app's own ticks are not taken for taps. */
  deafen(seconds: number): void {
    this.deafFor = seconds
    this.ringing = false
    this.kept = []
  }

  feed(block: Float32Array): Caught {
    const seconds = block.length / this.rate
    const level = peakOf(block)
    if (this.deafFor > 0) {
      this.deafFor -= seconds
      return { tap: null, level, room: this.room, ringing: false }
    }
    this.kept.push(block)
    if (!this.ringing) this.wait(level, seconds)
    else if (this.hasRung(level, seconds)) return { tap: this.take(), level, room: this.room, ringing: false }
    return { tap: null, level, room: this.room, ringing: this.ringing }
  }

  private wait(level: number, seconds: number): void {
    if (level > Math.max(LEAST_PEAK, this.room * OVER_ROOM)) {
      this.ringing = true
      this.since = 0
      this.least = 1
      return
    }
    const speed = seconds / (level > this.room ? ROOM_RISES_S : ROOM_FALLS_S)
    this.room += (level - this.room) * Math.min(1, speed)
    const most = Math.ceil((BEFORE_S * this.rate) / (this.kept[0]?.length ?? 1))
    while (this.kept.length > most) this.kept.shift()
  }

  private hasRung(level: number, seconds: number): boolean {
    this.since += seconds
    if (this.ringS !== undefined) return this.since >= this.ringS
    if (this.since > LEAST_RING_S) this.least = Math.min(this.least, level)
    return this.since >= RING_S || (this.since >= LEAST_RING_S && level < this.room * 1.5)
  }

  private take(): Float32Array {
    const all = new Float32Array(this.kept.reduce((sum, each) => sum + each.length, 0))
    let at = 0
    for (const each of this.kept) {
      all.set(each, at)
      at += each.length
    }
    this.kept = []
    this.ringing = false
    // What never fell back was not a ring alone: the room has grown louder.
    if (this.least < 1) this.room = Math.max(this.room, this.least)
    return all
  }
}

/** 16-bit samples, as the server takes them. */
export function toPcm(samples: Float32Array): ArrayBuffer {
  const out = new Int16Array(samples.length)
  samples.forEach((each, n) => (out[n] = Math.round(Math.max(-1, Math.min(1, each)) * 32767)))
  return out.buffer
}
