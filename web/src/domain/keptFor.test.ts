import { expect, it } from 'vitest'
import { isOf } from './keptFor'

it('keeps entries apart by person and workshop, and knows those of before there were several', () => {
  expect(isOf('kit@loft', 'kit@loft')).toBe(true)
  expect(isOf('kit@loft', 'kit@river')).toBe(false)
  expect(isOf('kit@loft', 'kit')).toBe(true)
  expect(isOf('kit@loft', 'petra')).toBe(false)
})
