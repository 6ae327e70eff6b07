/** All of Node that a test here needs. */
declare module 'node:fs' {
  export function readFileSync(path: string, encoding: 'utf8'): string
}
