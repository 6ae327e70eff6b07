import type { Head } from '../log/types'

/** Clockwise from the top, as rods are numbered; the badge stands at the top. */
export function rodAngle(rod: number, count: number, badge: string): number {
  return ((rod - (badge === 'at-rod' ? 1 : 0.5)) * 360) / count
}

export function polar(degrees: number, radius: number): [number, number] {
  const turn = (degrees * Math.PI) / 180
  return [Math.sin(turn) * radius, -Math.cos(turn) * radius]
}

/** The line of the snare bed, degrees from the badge: midway between the rods beside it; a quarter round where none is known. */
export function bedAxis(head: Pick<Head, 'rods' | 'beside_bed'>, badge: string): number {
  const angles = head.beside_bed.map((rod) => (2 * rodAngle(rod, head.rods, badge) * Math.PI) / 180)
  const sin = angles.reduce((sum, each) => sum + Math.sin(each), 0)
  const cos = angles.reduce((sum, each) => sum + Math.cos(each), 0)
  if (Math.hypot(sin, cos) < 0.3) return 90
  return (Math.atan2(sin, cos) * 90) / Math.PI
}

/** Part of a circle, clockwise, as an SVG path. */
export function arc(from: number, to: number, radius: number): string {
  const [x1, y1] = polar(from, radius)
  const [x2, y2] = polar(to, radius)
  return `M${x1} ${y1} A${radius} ${radius} 0 ${to - from > 180 ? 1 : 0} 1 ${x2} ${y2}`
}
