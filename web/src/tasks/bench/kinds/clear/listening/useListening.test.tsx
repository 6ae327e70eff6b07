import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type * as Cues from './cues'
import type * as Hear from './hear'
import type { Heard } from './hear'
import type * as Microphone from '../../../../../ui/ear/microphone'
import { wayTo } from './cues'
import { hearFile, hearSimulated, hearTap } from './hear'
import { useListening } from './useListening'

const ears = vi.hoisted(() => ({
  block: (() => undefined) as (block: Float32Array, rate: number) => void,
  gone: (() => undefined) as () => void,
  heard: [] as unknown[],
  refuse: null as Error | null,
  each: 2,
}))
vi.mock('../../../../../ui/ear/microphone', async (original) => ({
  ...(await original<typeof Microphone>()),
  openMicrophone: vi.fn((onBlock: typeof ears.block, onGone: () => void) => {
    ears.block = onBlock
    ears.gone = onGone
    return ears.refuse ? Promise.reject(ears.refuse) : Promise.resolve({ context: {}, close: vi.fn() })
  }),
}))
vi.mock('./cues', async (original) => ({
  ...(await original<typeof Cues>()),
  play: vi.fn(),
  cueSeconds: () => 0,
}))
vi.mock('./hear', async (original) => ({
  ...(await original<typeof Hear>()),
  hearTap: vi.fn(() => Promise.resolve(ears.heard.shift())),
  hearSimulated: vi.fn(() => Promise.resolve(ears.heard.shift())),
  hearFile: vi.fn((_: unknown, rods: number[]) =>
    Promise.resolve({
      taps: ears.heard,
      readings: rods.slice(0, ears.each).map((rod, n) => ({ rod, heard: ears.heard[2 * n] })),
      words: 'As asked.',
    }),
  ),
}))

const heard = (status: string, typed = '200.10', reason = ''): Heard => ({
  id: 'tap',
  picture: { step_s: 0.02, ring_db: [0, -6], cents: [null, 0] },
  status,
  typed,
  reason,
  hz: typed ? 200.1 : null,
  cents_sigma: 1,
  strength_db: -12,
  glide_cents: 5,
  partials: [{ hz: 200.1, level_db: 0 }],
  simulated: false,
})

/** One stroke and its ring, block by block. */
function tap(): void {
  const rate = 8_000
  for (let n = 0; n < 24; n++) {
    const block = new Float32Array(512)
    if (n > 4) block.forEach((_, i) => (block[i] = 0.4 * Math.exp(-(n - 5) / 3) * Math.sin(i)))
    ears.block(block, rate)
  }
}

function listen(rod: number | null = 2, middle = false, otherMuted = true, turns_32: number | null = null) {
  const [keep, keepMiddle] = [vi.fn(), vi.fn()]
  const { result, rerender } = renderHook(
    ({ lap, between = 0 }: { lap: number; between?: number }) =>
      useListening({
        job: 'j',
        step: 'clear',
        lap,
        rod,
        rods: [1, 2, 3],
        count: 8,
        middle,
        otherMuted,
        turns_32,
        between,
        keep,
        keepMiddle,
      }),
    { initialProps: { lap: 0 } as { lap: number; between?: number } },
  )
  return { result, rerender, keep, keepMiddle }
}

beforeEach(() => {
  ears.heard = []
  ears.refuse = null
  ears.each = 2
})
afterEach(cleanup)

describe('ears for the bench', () => {
  it('keep a tap for the rod in hand, with what it rang with', async () => {
    const { result, keep } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    const good = heard('ok')
    ears.heard = [good]
    act(tap)
    await waitFor(() => expect(keep).toHaveBeenCalledWith(2, good))
    expect(result.current.words).toBe('Rod 2 heard.')
  })

  it('ask again for what was refused, and enter nothing', async () => {
    const { result, keep } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [heard('refuse', '', 'two hits fell into one another; tap once')]
    act(tap)
    await waitFor(() => expect(result.current.words).toContain('Rod 2 again: two hits'))
    expect(keep).not.toHaveBeenCalled()
  })

  it('ask once more for a doubtful tap, and then keep it as doubtful', async () => {
    const { result, keep } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [heard('flag', '200.10?', 'a hard tap'), heard('flag', '200.10?', 'a hard tap')]
    act(tap)
    await waitFor(() => expect(result.current.words).toContain('again: a hard tap'))
    act(tap)
    await waitFor(() => expect(keep).toHaveBeenCalledTimes(1))
  })

  it('take the other pitch a doubtful tap may have been, for the rod it was heard at', async () => {
    const { result, keep } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    const second = { typed: '230.00', hz: 230, chance: 0.4 }
    ears.heard = [{ ...heard('flag', '170.00?', 'a close call'), second, ask: 'middle' }]
    act(tap)
    await waitFor(() => expect(result.current.words).toContain('One tap in the middle would settle it'))
    expect(keep).not.toHaveBeenCalled()
    act(() => result.current.takeSecond())
    expect(keep.mock.lastCall?.[0]).toBe(2)
    expect(keep.mock.lastCall?.[1]).toMatchObject({ typed: '230.00', hz: 230, second: null })
    expect(result.current.words).toContain('230.0 Hz is taken instead')
  })

  it('offer no other pitch in a later round, where it would be entered for another turn of the rods', async () => {
    const { result, rerender, keep } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [{ ...heard('ok'), second: { typed: '230.00', hz: 230, chance: 0.2 } }]
    act(tap)
    await waitFor(() => expect(result.current.last?.second?.hz).toBe(230))
    rerender({ lap: 1 })
    expect(result.current.last?.second).toBeNull()
    act(() => result.current.takeSecond())
    expect(keep).toHaveBeenCalledTimes(1)
  })

  it('keep a tap in the middle for the drum, not for a rod', async () => {
    const { result, keep, keepMiddle } = listen(2, true)
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [heard('ok', '114.20')]
    act(tap)
    await waitFor(() => expect(keepMiddle).toHaveBeenCalledTimes(1))
    expect(keep).not.toHaveBeenCalled()
    expect(result.current.words).toBe('The middle is heard.')
  })

  it('take one tap for a rod that was turned first, and a second one so soon after for none', async () => {
    const { result, keep } = listen(2, false, true, 4)
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [heard('ok', '201'), heard('ok', '202')]
    act(tap)
    await waitFor(() => expect(result.current.words).toContain('what is left is worked out'))
    act(tap)
    await Promise.resolve()
    expect(keep).toHaveBeenCalledTimes(1)
    expect(ears.heard).toHaveLength(1)
  })

  it('offer another pitch of a tap between turns only until it is kept, or it would count as another turn', async () => {
    const { result, rerender, keep } = listen(2, false, true, 4)
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [{ ...heard('ok', '201'), second: { typed: '230.00', hz: 230, chance: 0.2 } }]
    act(tap)
    await waitFor(() => expect(result.current.last?.second?.hz).toBe(230))
    rerender({ lap: 0, between: 1 })
    expect(result.current.last?.second).toBeNull()
    act(() => result.current.takeSecond())
    expect(keep).toHaveBeenCalledTimes(1)
  })

  it('turn the simulated rod before they tap it', async () => {
    const { result, keep } = listen(2, false, true, -2)
    ears.heard = [heard('ok', '201')]
    act(() => result.current.simulate())
    await waitFor(() => expect(keep).toHaveBeenCalledTimes(1))
    expect(vi.mocked(hearSimulated).mock.lastCall?.[0].turns_32).toBe(-2)
    act(() => result.current.stop())
  })

  it('tell with every tap how the other head lies', async () => {
    const { result } = listen(2, false, false)
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    ears.heard = [heard('ok')]
    act(tap)
    await waitFor(() => expect(result.current.words).toBe('Rod 2 heard.'))
    const place = { job: 'j', step: 'clear', lap: 0, rod: 2, otherMuted: false }
    expect(vi.mocked(hearTap).mock.lastCall?.[0]).toEqual(place)
  })

  it('tap the simulated drum in the middle too', async () => {
    const { result, keepMiddle } = listen(2, true)
    ears.heard = [heard('ok', '114.20')]
    act(() => result.current.simulate())
    await waitFor(() => expect(keepMiddle).toHaveBeenCalledTimes(1))
    expect(vi.mocked(hearSimulated).mock.lastCall?.[0].rod).toBeNull()
    act(() => result.current.stop())
  })

  it('say why the microphone cannot be had, and that typing still works', async () => {
    ears.refuse = new DOMException('no', 'NotAllowedError')
    const { result } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.words).toContain('refused'))
    expect(result.current.words).toContain('Typing still works')
    expect(result.current.state).toBe('off')
  })

  it('say when the microphone goes away in the middle', async () => {
    const { result } = listen()
    act(() => result.current.start())
    await waitFor(() => expect(result.current.state).toBe('on'))
    act(() => ears.gone())
    expect(result.current.state).toBe('off')
    expect(result.current.words).toContain('What was heard is kept')
  })

  it('take the taps of a recording in order from the rod in hand on', async () => {
    const { result, keep } = listen(2)
    ears.heard = [heard('ok', '201'), heard('refuse', '', 'noise'), heard('ok', '202'), heard('ok', '203')]
    act(() => result.current.files([new File([], 'round.wav')]))
    await waitFor(() => expect(result.current.words).toContain('3 of 4 taps taken for 2 rods'))
    expect(keep.mock.calls.map(([rod, each]) => [rod, (each as Heard).typed])).toEqual([
      [2, '201'],
      [3, '202'],
    ])
    expect(result.current.words).toContain('One was not: noise')
    expect(result.current.words).toContain('As asked.')
  })

  it('take one tap a file, in the order of their names', async () => {
    const { result, keep } = listen(1)
    ears.heard = [heard('ok', '201')]
    ears.each = 1
    act(() =>
      result.current.files(['rod 10.wav', 'rod 2.wav', 'rod 1.wav'].map((name) => new File([], name))),
    )
    await waitFor(() => expect(result.current.words).toContain('3 of 3 taps taken for 3 rods'))
    expect(keep.mock.calls.map(([rod]) => rod as number)).toEqual([1, 2, 3])
    expect(
      vi
        .mocked(hearFile)
        .mock.calls.slice(-3)
        .map(([, , file]) => file.name),
    ).toEqual(['rod 1.wav', 'rod 2.wav', 'rod 10.wav'])
  })
})

describe('the cue', () => {
  it.each([
    [1, 2, 8, 'beside'],
    [8, 1, 8, 'beside'],
    [1, 5, 8, 'across'],
    [6, 2, 8, 'across'],
    [8, undefined, 8, 'done'],
  ] as const)('from rod %s to %s of %s says %s', (rod, next, count, said) => {
    expect(wayTo(rod, next, count)).toBe(said)
  })
})
