import type { Schemas } from '../../api/client'

export type Dated = Schemas['FittedOut']['dated']
export type Where = 'batter' | 'resonant' | 'wires'

/** One part of a drum as somebody found it, as typed. */
export interface Found {
  what: string
  dated: Dated
  on: string
  months: string
  pitch: string
}

export const EMPTY: Found = { what: '', dated: 'known', on: '', months: '', pitch: '' }

const asFound = (said: Found): Schemas['FoundOn'] | null =>
  said.what.trim()
    ? {
        what: said.what,
        dated: said.dated,
        on: said.dated === 'known' && said.on ? said.on : null,
        months: said.dated === 'guessed' && said.months ? Number(said.months.replace(',', '.')) : null,
      }
    : null

/** The body to send. */
export const asStands = (id: string, said: Record<Where, Found>): Schemas['StandsIn'] => ({
  id,
  batter: asFound(said.batter),
  resonant: asFound(said.resonant),
  wires: asFound(said.wires),
  batter_pitch: said.batter.pitch,
  resonant_pitch: said.resonant.pitch,
})

/** Whether there is anything to send. */
export const saysSomething = (said: Record<Where, Found>): boolean =>
  Object.values(said).some((each) => each.what.trim() || each.pitch.trim())
