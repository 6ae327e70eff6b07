import { describe, expect, it } from 'vitest'
import type { Body } from '../../../../api/outbox'
import type { Ask } from '../../log/types'
import { bench, step } from '../../tests/builders'
import type { Given } from '../kind'
import { tick } from './tick'

const ask = (more: Partial<Ask>): Ask => ({
  ...{ name: 'port', words: 'The port is', options: [], many: false, own: false, unit: '', needed: true },
  ...{ values: [], said: '' },
  ...more,
})

function main(...asks: Ask[]) {
  const entered: Body[] = []
  const at = step('port', 'tick', [], { asks })
  const given = {
    bench: bench([at]),
    next: { kind: 'at', step: at },
    enter: (body: Body) => entered.push(body),
  }
  const act = tick.main(given as unknown as Given)
  act?.run()
  return { act, entered }
}

describe('a step that asks', () => {
  it('is not done before it knows what it must', () => {
    const { act, entered } = main(
      ask({ options: ['cut', 'ready'].map((value) => ({ value, words: value })) }),
    )
    expect(act).toMatchObject({ words: 'First: the port is?', off: true })
    expect(entered).toEqual([])
  })

  it('has a caution read with the big button', () => {
    const read = ask({ name: 'cutting-read', options: [{ value: 'yes', words: 'gloves on' }] })
    const { act, entered } = main(read)
    expect(act?.words).toBe('Read: gloves on')
    expect(entered).toEqual([
      { kind: 'answer', step: 'port', question: 'cutting-read', values: ['yes'], unit: '' },
    ])
  })

  it('is done once that is answered, whatever else it asks', () => {
    const { entered } = main(
      ask({ values: ['cut'] }),
      ask({ name: 'port-size', needed: false, unit: 'length' }),
    )
    expect(entered).toEqual([{ kind: 'step_done', step: 'port' }])
  })
})
