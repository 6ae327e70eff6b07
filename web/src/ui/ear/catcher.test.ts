import { describe, expect, it } from 'vitest'
import { TapCatcher, toPcm, type Caught } from './catcher'

const RATE = 48_000
const BLOCK = 512

/** A room with a tap in it: noise, a stroke, its ring. */
function sound(seconds: number, taps: readonly number[], loud = 0.4, room = 0.001): Float32Array {
  const out = new Float32Array(seconds * RATE)
  let seed = 1
  const noise = () => ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5) * 2
  for (let n = 0; n < out.length; n++) {
    let value = room * noise()
    for (const at of taps) {
      const t = n / RATE - at
      if (t >= 0) value += loud * Math.exp(-7 * t) * Math.sin(2 * Math.PI * 200 * t)
    }
    out[n] = value
  }
  return out
}

function listen(catcher: TapCatcher, samples: Float32Array): Caught[] {
  const found: Caught[] = []
  for (let at = 0; at + BLOCK <= samples.length; at += BLOCK) {
    const caught = catcher.feed(samples.slice(at, at + BLOCK))
    if (caught.tap) found.push(caught)
  }
  return found
}

describe('catching taps', () => {
  it('takes one piece a tap, with the silence before it and the ring after', () => {
    const caught = listen(new TapCatcher(RATE), sound(6, [1, 3]))
    expect(caught).toHaveLength(2)
    const tap = caught[0]?.tap ?? new Float32Array()
    const stroke = tap.findIndex((each) => Math.abs(each) > 0.1) / RATE
    expect(stroke).toBeGreaterThan(0.08)
    expect(stroke).toBeLessThan(0.14)
    expect(tap.length / RATE).toBeGreaterThan(0.5)
  })

  it('hears nothing in a quiet room', () => {
    expect(listen(new TapCatcher(RATE), sound(4, []))).toHaveLength(0)
  })

  it('learns a louder room, and still hears a tap in it', () => {
    const catcher = new TapCatcher(RATE)
    listen(catcher, sound(6, [], 0, 0.02))
    expect(listen(catcher, sound(3, [], 0, 0.02))).toHaveLength(0)
    expect(listen(catcher, sound(3, [1], 0.5, 0.02))).toHaveLength(1)
  })

  it('is deaf while the app itself ticks', () => {
    const catcher = new TapCatcher(RATE)
    listen(catcher, sound(1, []))
    catcher.deafen(0.3)
    expect(listen(catcher, sound(0.25, [0.02]))).toHaveLength(0)
  })

  it('sends whole 16-bit samples, never beyond full scale', () => {
    expect([...new Int16Array(toPcm(new Float32Array([0, 0.5, 2, -2])))]).toEqual([0, 16384, 32767, -32767])
  })
})
