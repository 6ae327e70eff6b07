import { describe, expect, it } from 'vitest'
import { benchSheet, serviceCard } from './paper'

describe('paper', () => {
  it('is Letter in North America and A4 elsewhere', () => {
    expect(benchSheet('j', 'en-US')).toBe('/api/paper/jobs/j?size=letter')
    expect(benchSheet('j', 'en-GB')).toBe('/api/paper/jobs/j?size=a4')
    expect(serviceCard('MQ 1', 'de')).toBe('/api/paper/drums/MQ%201?size=a4')
  })
})
