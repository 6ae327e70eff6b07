import type { Schemas } from '../../api/client'

type Sheet = Schemas['Sheet']
type Offer = Sheet['work'][number]

export interface Work {
  words: string
  to: string
  /** How long it usually takes; nothing for a job in hand. */
  minutes: number | null
  about: Offer['part'] | 'in hand'
}

/** Jobs in hand first, then checks that are due, then what the catalogue offers for this drum. */
export function worksOf(sheet: Sheet): Work[] {
  const jobs = new Map<string, string>(
    sheet.sides.flatMap((side) => (side.job_id ? [[side.job_id, `Go on with the ${side.side}`]] : [])),
  )
  for (const offer of sheet.work)
    if (offer.in_hand && !jobs.has(offer.in_hand)) jobs.set(offer.in_hand, `Go on with the ${offer.part}`)
  const inHand = [...jobs].map(([job, words]): Work => ({
    words,
    to: `/bench/${job}`,
    minutes: null,
    about: 'in hand',
  }))
  const can = sheet.work.filter((offer) => !offer.why_not && !offer.in_hand)
  const work = (offer: Offer, words: string): Work => ({
    words,
    to: `/drums/${sheet.tag}/start?work=${offer.work}&part=${offer.part}`,
    minutes: offer.minutes,
    about: offer.part,
  })
  const due = (offer: Offer) =>
    offer.answers_checks ? sheet.sides.find((side) => side.side === offer.part && side.check_due) : undefined
  const checks = can.flatMap((offer): Work[] => {
    const side = due(offer)
    return side ? [work(offer, `Check the ${side.side}${side.check_overdue ? '' : ' early'}`)] : []
  })
  const fitted = (offer: Offer) =>
    offer.changes_heads || offer.sides.every((each) => sheet.sides.find((side) => side.side === each)?.head)
  const rest = can.filter((offer) => !due(offer) && fitted(offer)).map((offer) => work(offer, offer.words))
  return [...inHand, ...checks, ...rest]
}
