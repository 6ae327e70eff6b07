import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bringIn, keyOf, type Progress } from './bringIn'

const PIECE = 4
let here: string
let asked: string[]
let fails: number

const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const refusal = (code: string) => ({ code, message: `${code}.`, fields: {}, kept: '' })

beforeEach(() => {
  here = ''
  asked = []
  fails = 0
  vi.stubGlobal('setTimeout', queueMicrotask) // a pause is no longer than that here
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname, searchParams } = new URL(request.url)
    asked.push(`${request.method} ${pathname}`)
    if (request.method === 'PUT') {
      if (fails > 0) {
        fails -= 1
        throw new TypeError('network')
      }
      if (Number(searchParams.get('at')) === here.length) here += await request.text()
      return json(200, { at: here.length, piece: PIECE })
    }
    return pathname.endsWith('/take')
      ? json(200, { rows: { drums: 2 } })
      : json(200, { at: here.length, piece: PIECE })
  })
})
afterEach(() => {
  vi.unstubAllGlobals()
})

const file = () => new File(['ten signs.'], 'all.json', { lastModified: 5 })

describe('an archive that is brought in', () => {
  it('is sent in pieces, with progress, and taken in', async () => {
    const told: Progress[] = []
    const found = await bringIn(file(), (progress) => told.push(progress))
    expect(found).toEqual({ rows: { drums: 2 } })
    expect(here).toBe('ten signs.')
    expect(told.map(({ at, reading }) => [at, reading])).toEqual([
      [0, false],
      [4, false],
      [8, false],
      [10, false],
      [10, true],
    ])
  })

  it('goes on where it was, chosen again', async () => {
    here = 'ten si'
    await bringIn(file(), () => undefined)
    expect(here).toBe('ten signs.')
    expect(asked.filter((each) => each.startsWith('PUT'))).toHaveLength(1)
  })

  it('outlives a network that breaks for a moment, and says so when it stays away', async () => {
    fails = 2
    await bringIn(file(), () => undefined)
    expect(here).toBe('ten signs.')
    here = ''
    fails = 99
    await expect(bringIn(file(), () => undefined)).rejects.toThrow()
  })

  it('does not go on asking a machine whose disk is full', async () => {
    vi.stubGlobal('fetch', async (request: Request) => {
      asked.push(request.method)
      return json(507, refusal('disk_full'))
    })
    await expect(bringIn(file(), () => undefined)).rejects.toThrow('disk_full')
    expect(asked).toHaveLength(1)
  })

  it('is known by its name, size and day', () => {
    const of = (name: string, at: number) => keyOf(new File(['x'], name, { lastModified: at }))
    expect(of('a', 1)).toBe(of('a', 1))
    expect(new Set([of('a', 1), of('b', 1), of('a', 2)]).size).toBe(3)
    expect(of('ä', 1_700_000_000_000)).toMatch(/^[0-9a-f]{24,64}$/)
  })
})
