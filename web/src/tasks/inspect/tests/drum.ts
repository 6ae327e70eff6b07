import type { WalkDrum } from '../log/fold'

/** A snare with a rattle on record. */
export const drum: WalkDrum = {
  tag: 'MQ-7',
  name: 'Knot',
  kind: 'snare',
  kind_words: 'snare',
  size: '14 × 6 in',
  place: 'pit',
  rods_batter: 6,
  rods_resonant: 6,
  lost_batter: [],
  lost_resonant: [],
  bed_rods: [2, 5],
  badge: 'between',
  port: false,
  wires: '20 strands',
  heads: [],
  known: [
    {
      row: 4,
      finding: 'rattle',
      degree: 1,
      side: null,
      rod: null,
      spot: null,
      note: '',
      by: 'Bram',
      at: '2026-01-02T10:00:00Z',
    },
  ],
  last_look: null,
}
