import { expect, it } from 'vitest'
import { byDay } from './days'

it('puts changes under their days, in the order they come', () => {
  const at = (text: string) => ({ at: new Date(text).toISOString() })
  const days = byDay([at('2026-11-27T18:00'), at('2026-11-27T09:00'), at('2026-11-26T23:59')])
  expect(days.map(([, each]) => each.length)).toEqual([2, 1])
  expect(days[0]?.[0]).toContain('27')
  expect(byDay([])).toEqual([])
})
