import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

const listeners = new Map<string, () => void>()
let next: { postMessage: ReturnType<typeof vi.fn>; addEventListener: (name: string, act: () => void) => void }
let registration: { waiting: unknown; installing: unknown; update: () => Promise<void> }
let taken: () => void

beforeEach(() => {
  vi.resetModules()
  next = { postMessage: vi.fn(), addEventListener: (name, act) => listeners.set(name, act) }
  registration = { waiting: null, installing: null, update: vi.fn(async () => undefined) }
  vi.stubGlobal('navigator', {
    ...globalThis.navigator,
    serviceWorker: {
      getRegistration: async () => registration,
      addEventListener: (_: string, act: () => void) => (taken = act),
    },
  })
})
afterEach(() => vi.unstubAllGlobals())

describe('at an address this app does not know', () => {
  it('a newer app that lies ready is taken up', async () => {
    const { seekNewer } = await import('./worker')
    registration.update = async () => void (registration.waiting = next)
    await seekNewer()
    expect(next.postMessage).toHaveBeenCalledWith({ type: 'SKIP_WAITING' })
    expect(taken).toBeTypeOf('function')
  })

  it('one that is on its way is taken up once it is there', async () => {
    const { seekNewer } = await import('./worker')
    registration.update = async () => void (registration.installing = next)
    await seekNewer()
    expect(next.postMessage).not.toHaveBeenCalled()
    registration.waiting = next
    listeners.get('statechange')?.()
    expect(next.postMessage).toHaveBeenCalledOnce()
  })

  it('with none, and without network, nothing happens', async () => {
    const { seekNewer } = await import('./worker')
    registration.update = () => Promise.reject(new TypeError('network'))
    await seekNewer()
    expect(next.postMessage).not.toHaveBeenCalled()
  })
})
