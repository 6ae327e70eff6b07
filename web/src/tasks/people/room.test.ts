import { expect, it } from 'vitest'
import { room } from './room'

it('says bytes in steps of a thousand (SI prefixes)', () => {
  expect([10, 812_000, 12_400_000, 3_100_000_000].map(room)).toEqual(['1 kB', '812 kB', '12.4 MB', '3.1 GB'])
})
