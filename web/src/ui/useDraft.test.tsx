import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { useDraft } from './useDraft'

beforeEach(() => localStorage.clear())
afterEach(cleanup)

const fresh = { name: '', depth: '' }

describe('a draft', () => {
  it('survives a reload until it is saved', () => {
    const first = renderHook(() => useDraft('drum', fresh))
    act(() => first.result.current[1]({ name: 'Grebe', depth: '6' }))
    first.unmount()
    const second = renderHook(() => useDraft('drum', fresh))
    expect(second.result.current[0]).toEqual({ name: 'Grebe', depth: '6' })
    act(() => second.result.current[2]())
    second.unmount()
    expect(renderHook(() => useDraft('drum', fresh)).result.current[0]).toEqual(fresh)
  })

  it('takes up fields that have been added to the form since', () => {
    localStorage.setItem('red-tally-draft:drum', JSON.stringify({ name: 'Grebe' }))
    expect(renderHook(() => useDraft('drum', fresh)).result.current[0]).toEqual({ name: 'Grebe', depth: '' })
  })

  it('is not written before anything was typed, and keeps forms apart', () => {
    renderHook(() => useDraft('drum', fresh))
    expect(localStorage.length).toBe(0)
    const one = renderHook(() => useDraft('one', fresh))
    act(() => one.result.current[1]({ name: 'a', depth: '' }))
    expect(renderHook(() => useDraft('other', fresh)).result.current[0]).toEqual(fresh)
  })

  it('is not broken by what it cannot read', () => {
    localStorage.setItem('red-tally-draft:drum', '{not json')
    expect(renderHook(() => useDraft('drum', fresh)).result.current[0]).toEqual(fresh)
  })
})
