import type { Schemas } from '../../../api/client'
import { hz } from '../../../domain/pitch'
import type { Folded } from './state'
import type { Answer, Ask } from './types'

type Question = Schemas['QuestionOut']

const said = (question: Question, values: readonly string[]): string =>
  values.map((value) => question.options.find((each) => each.value === value)?.words ?? value).join(', ')

/** A question of a step with what was answered, a typed pitch as the server read it. */
function answered(state: Folded, question: Question): Ask {
  const mark = state.answers.get(question.name)
  const pitch = state.answer.figures.pitches.find((each) => each.entry === mark?.event)
  const read = pitch?.hz ? `${hz(pitch.hz)} Hz, ${pitch.note}` : ''
  return { ...question, values: mark?.values ?? [], said: read || said(question, mark?.values ?? []) }
}

export function asksOf(state: Folded, step: Answer['plan'][number]) {
  const all = state.answer.plan.flatMap((each) => each.asks)
  const recalled = step.recalls.flatMap((name) => all.find((each) => each.name === name) ?? [])
  return {
    asks: step.asks.map((each) => answered(state, each)),
    recalls: recalled.map((each) => answered(state, each)).filter((each) => each.values.length),
    told: state.answer.figures.told.find((each) => each.step === step.id)?.words ?? '',
  }
}
