import type { Schemas } from '../../api/client'

type DrumIn = Schemas['DrumIn']
type DrumEdit = Schemas['DrumEdit']
export const ROD_LISTS = ['lost_batter', 'lost_resonant', 'bed_rods', 'port_rods'] as const
type RodList = (typeof ROD_LISTS)[number]
/** The form as text; what the server takes differs only in the whole numbers. */
export type DrumForm = Omit<Required<DrumIn>, 'rods_batter' | 'rods_resonant' | RodList | 'kits'> & {
  rods_batter: string
  rods_resonant: string
  kits: string
  /** The drum as it was when this person began to change it. */
  seen: DrumIn | null
} & Record<RodList, string>

export const fresh = (choices: Schemas['Choices']): DrumForm => ({
  tag: choices.next_tag,
  name: '',
  kind: 'rack-tom',
  diameter: '',
  depth: '',
  shell: '',
  rods_batter: '6',
  rods_resonant: '6',
  lost_batter: '',
  lost_resonant: '',
  bed_rods: '',
  port_rods: '',
  thread: choices.threads[0] ?? '',
  hoops: choices.hoops[0] ?? '',
  snare_bed: false,
  badge: 'between',
  port: '',
  wanted_batter: '',
  wanted_resonant: '',
  place: choices.places[0] ?? '',
  owner: choices.owners[0] ?? '',
  kits: '',
  state: 'in',
  hours_week: '',
  note: '',
  seen: null,
})

export const toForm = (drum: Schemas['DrumIn']): DrumForm => ({
  ...drum,
  rods_batter: String(drum.rods_batter),
  rods_resonant: String(drum.rods_resonant),
  lost_batter: drum.lost_batter.join(', '),
  lost_resonant: drum.lost_resonant.join(', '),
  bed_rods: drum.bed_rods.join(', '),
  port_rods: drum.port_rods.join(', '),
  kits: drum.kits.join(', '),
  seen: drum,
})

const list = (text: string): string[] =>
  text
    .split(',')
    .map((each) => each.trim())
    .filter(Boolean)

const WHOLE = /^\d{1,2}$/

/** The body to send, or what keeps it from being one. Everything else is the server's to judge. */
export function fromForm(form: DrumForm): { body: DrumEdit | null; problems: Record<string, string> } {
  const problems: Record<string, string> = {}
  for (const name of ['rods_batter', 'rods_resonant'] as const)
    if (!WHOLE.test(form[name].trim())) problems[name] = 'Give a whole number, 4 to 16.'
  for (const name of ROD_LISTS)
    if (list(form[name]).some((each) => !WHOLE.test(each)))
      problems[name] = 'Give rod numbers, such as 3 or 3, 5.'
  if (Object.keys(problems).length) return { body: null, problems }
  const body: DrumEdit = {
    ...form,
    rods_batter: Number(form.rods_batter),
    rods_resonant: Number(form.rods_resonant),
    lost_batter: list(form.lost_batter).map(Number),
    lost_resonant: list(form.lost_resonant).map(Number),
    bed_rods: list(form.bed_rods).map(Number),
    port_rods: list(form.port_rods).map(Number),
    kits: list(form.kits),
  }
  return { body, problems }
}
