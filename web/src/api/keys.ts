/** Query keys, in one place. */
export const keys = {
  session: ['session'] as const,
  today: ['today'] as const,
  choices: ['choices'] as const,
  drums: (filter: object) => ['drums', filter] as const,
  drum: (tag: string) => ['drum', tag] as const,
  sheet: (tag: string) => ['sheet', tag] as const,
  sound: (tag: string) => ['sound', tag] as const,
  twoHeads: (tag: string, asked: object) => ['two-heads', tag, asked] as const,
  heads: (tag: string, side: string) => ['heads', tag, side] as const,
  schools: ['schools'] as const,
  patterns: (rods: number, lost: string) => ['patterns', rods, lost] as const,
  job: (id: string) => ['job', id] as const,
  findings: (kind: string) => ['findings', kind] as const,
  heard: (job: string) => ['heard', job] as const,
  kept: ['kept-sound'] as const,
}
