/** Bytes as people count them: '12 MB', '3.4 GB'. */
export function inMegabytes(bytes: number): string {
  const mega = bytes / 1e6
  return mega < 1000
    ? `${mega < 10 ? mega.toFixed(1) : Math.round(mega)} MB`
    : `${(mega / 1000).toFixed(1)} GB`
}
