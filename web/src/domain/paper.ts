/** Paper as this device's region has it: Letter in North America, A4 elsewhere. */
export function paperSize(language: string): 'a4' | 'letter' {
  return /-(US|CA|MX)$/i.test(language) ? 'letter' : 'a4'
}

export const benchSheet = (job: string, language = navigator.language): string =>
  `/api/paper/jobs/${job}?size=${paperSize(language)}`

export const serviceCard = (tag: string, language = navigator.language): string =>
  `/api/paper/drums/${encodeURIComponent(tag)}?size=${paperSize(language)}`

export const noteOfCallout = (callout: string, language = navigator.language): string =>
  `/api/paper/callouts/${callout}?size=${paperSize(language)}`
