import { afterEach, expect, it, vi } from 'vitest'
import { insist, isNearlyFull, look, snapshot } from './room'

const FULL = new DOMException('no room', 'QuotaExceededError')

afterEach(() => vi.unstubAllGlobals())

it('takes copies away before it says that the device is full', async () => {
  const put = vi.fn().mockRejectedValueOnce(FULL).mockResolvedValueOnce('kept')
  expect(await insist(put)).toBe('kept')
  expect(snapshot().full).toBe(false)
})

it('says that the device is full, until something fits again', async () => {
  await expect(insist(() => Promise.reject(FULL))).rejects.toBe(FULL)
  expect(snapshot().full).toBe(true)
  await insist(() => Promise.resolve())
  expect(snapshot().full).toBe(false)
})

it('is not full when the store fails otherwise', async () => {
  const broken = new Error('the store on this device does not answer')
  const put = vi.fn().mockRejectedValue(broken)
  await expect(insist(put)).rejects.toBe(broken)
  expect(put).toHaveBeenCalledOnce()
  expect(snapshot().full).toBe(false)
})

it('counts the room that is left, and knows nothing where the browser says nothing', async () => {
  const storage = (quota?: number) => ({
    storage: { estimate: () => Promise.resolve({ usage: 5e6, quota }) },
  })
  vi.stubGlobal('navigator', storage(20e6))
  await look()
  expect(snapshot()).toMatchObject({ used: 5e6, left: 15e6 })
  expect(isNearlyFull(snapshot())).toBe(true)
  vi.stubGlobal('navigator', storage())
  await look()
  expect(snapshot().left).toBeNull()
  expect(isNearlyFull(snapshot())).toBe(false)
})
