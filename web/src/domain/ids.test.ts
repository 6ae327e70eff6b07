import { expect, it, vi } from 'vitest'
import { newId } from './ids'

it('makes version 4 UUIDs (RFC 9562, section 5.4) without crypto.randomUUID, which plain http pages lack', () => {
  vi.spyOn(crypto, 'randomUUID').mockImplementation(() => {
    throw new TypeError('crypto.randomUUID is not a function')
  })
  const made = Array.from({ length: 500 }, newId)
  for (const id of made)
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
  expect(new Set(made).size).toBe(500)
})
