import type { Look, Walk } from './log/fold'

const isOpen = (look: Look | undefined): boolean => Boolean(look && !look.looked && !look.notHere)

/** The first drum of a walk nobody looked at yet. */
export const firstOpen = (walk: Walk, looks: Map<string, Look>) =>
  walk.drums.find(({ tag }) => isOpen(looks.get(tag)))

/** The tag of the next one after this that was not looked at, going round once. */
export function nextTag(walk: Walk, looks: Map<string, Look>, after: string): string | null {
  const from = walk.drums.findIndex((drum) => drum.tag === after)
  const order = [...walk.drums.slice(from + 1), ...walk.drums.slice(0, Math.max(0, from))]
  return order.find(({ tag }) => isOpen(looks.get(tag)))?.tag ?? null
}
