import { expect, it } from 'vitest'
import { nextColumns } from './chosen'

const columns = ['tag', 'name', ''].map((field, n) => ({ heading: `column ${n}`, sample: [], field }))

it('changes one column, and lets no field be said twice', () => {
  expect(nextColumns(columns, 2, 'kind')).toEqual({ 0: 'tag', 1: 'name', 2: 'kind' })
  expect(nextColumns(columns, 2, 'tag')).toEqual({ 0: '', 1: 'name', 2: 'tag' })
  expect(nextColumns(columns, 1, '')).toEqual({ 0: 'tag', 1: '', 2: '' })
})
