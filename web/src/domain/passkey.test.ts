import { afterEach, expect, it, vi } from 'vitest'
import { deviceRefused, hasPasskeys, makePasskey, signWithPasskey } from './passkey'

const bytes = (...each: number[]): ArrayBuffer => new Uint8Array(each).buffer

afterEach(() => vi.unstubAllGlobals())

it('hands the device bytes, and the server the standard’s JSON', async () => {
  const create = vi.fn().mockResolvedValue({
    id: '_-8',
    rawId: bytes(255, 239),
    type: 'public-key',
    response: { clientDataJSON: bytes(1), attestationObject: bytes(2, 3) },
  })
  vi.stubGlobal('navigator', { credentials: { create } })
  const made = await makePasskey({
    challenge: 'AQID',
    user: { id: '_-8', name: 'kit' },
    excludeCredentials: [{ id: 'AQ', type: 'public-key' }],
  })
  const asked = create.mock.calls[0]?.[0].publicKey
  expect([...new Uint8Array(asked.challenge)]).toEqual([1, 2, 3])
  expect([...new Uint8Array(asked.user.id)]).toEqual([255, 239])
  expect([...new Uint8Array(asked.excludeCredentials[0].id)]).toEqual([1])
  expect(made).toMatchObject({ rawId: '_-8', response: { clientDataJSON: 'AQ', attestationObject: 'AgM' } })
})

it('signs with whatever key the person has', async () => {
  const response = {
    clientDataJSON: bytes(1),
    authenticatorData: bytes(2),
    signature: bytes(3),
    userHandle: null,
  }
  const get = vi.fn().mockResolvedValue({ id: 'AQ', rawId: bytes(1), type: 'public-key', response })
  vi.stubGlobal('navigator', { credentials: { get } })
  const signed = await signWithPasskey({ challenge: 'AQID' })
  expect(get.mock.calls[0]?.[0].publicKey.allowCredentials).toEqual([])
  expect(signed).toMatchObject({ response: { signature: 'Aw', userHandle: null } })
})

it('says why there is no key', () => {
  expect(deviceRefused(new DOMException('', 'InvalidStateError'))).toContain('a key for you already')
  expect(deviceRefused(new DOMException('', 'NotAllowedError'))).toContain('called off')
})

it('offers none at an address of figures', () => {
  vi.stubGlobal('PublicKeyCredential', () => undefined)
  vi.stubGlobal('location', { hostname: '192.168.1.20' })
  expect(hasPasskeys()).toBe(false)
  vi.stubGlobal('location', { hostname: 'shop.local' })
  expect(hasPasskeys()).toBe(true)
})
