import type { Schemas } from '../../../api/client'

export type Bench = Schemas['BenchOut']
export type Step = Schemas['StepOut']
export type Lap = Schemas['LapOut']
export type Rod = Schemas['RodOut']
