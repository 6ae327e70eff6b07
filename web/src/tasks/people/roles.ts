export type Role = 'owner' | 'technician' | 'viewer'

export const ROLES = [
  { value: 'owner', words: 'owner', note: 'everything, people too' },
  { value: 'technician', words: 'technician', note: 'does the work' },
  { value: 'viewer', words: 'viewer', note: 'looks, changes nothing' },
] as const
