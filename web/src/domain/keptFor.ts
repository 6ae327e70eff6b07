/** Whose an entry on this device is: a person in a workshop, as `name@workshop`. What an older version kept says the name alone. */
export const isOf = (now: string, kept: string): boolean => kept === now || kept === now.split('@')[0]
