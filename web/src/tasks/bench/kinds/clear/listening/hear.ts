import { api, ApiError, unwrap, type Schemas } from '../../../../../api/client'
import { toPcm } from '../../../../../ui/ear/catcher'

export type Heard = Schemas['HeardOut']
export type HeardFile = Schemas['HeardFileOut']

/** Where a tap is made, and how the other head lies meanwhile; no rod is the middle of the head. */
export interface Place {
  job: string
  step: string
  lap: number
  rod: number | null
  otherMuted: boolean
  /** Turned so far and not yet entered, before a simulated rod is tapped. */
  turns_32?: number
}

const query = ({ step, lap, rod, otherMuted }: Place) => ({
  step,
  lap,
  other_muted: otherMuted,
  ...(rod ? { rod } : {}),
})

/** One tap to the server, and what it read. */
export function hearTap(place: Place, samples: Float32Array, rate: number): Promise<Heard> {
  return unwrap(
    api.POST('/api/hearing/jobs/{job_id}/tap', {
      params: { path: { job_id: place.job }, query: { rate: Math.round(rate), ...query(place) } },
      body: toPcm(samples) as never,
      bodySerializer: (body: unknown) => body as BodyInit,
      headers: { 'Content-Type': 'application/octet-stream' },
    }),
  )
}

/** Tap the demo's simulated drum. */
export function hearSimulated(place: Place): Promise<Heard> {
  return unwrap(
    api.POST('/api/hearing/jobs/{job_id}/simulated', {
      params: { path: { job_id: place.job } },
      body: { ...query(place), turns_32: place.turns_32 ?? 0 },
    }),
  )
}

/** What a recording may be, as the server takes it. */
export const TAKEN = '.wav,.flac,.aiff,.aif,.ogg,audio/*'
export const TAKEN_MB = 64
export const TAKEN_WORDS = `WAV, FLAC, AIFF or OGG, up to ${TAKEN_MB} MB and five minutes; it may also be let fall on the instruction`

/** A recording of a round, while these rods are still to be read in this order. */
export function hearFile(
  { job, step, lap, otherMuted }: Place,
  rods: readonly number[],
  file: File,
): Promise<HeardFile> {
  const form = new FormData()
  form.append('sound', file)
  form.append('step', step)
  form.append('lap', String(lap))
  form.append('other_muted', String(otherMuted))
  form.append('rods', rods.join(','))
  return unwrap(
    api.POST('/api/hearing/jobs/{job_id}/file', {
      params: { path: { job_id: job } },
      body: form as never,
      bodySerializer: (body: unknown) => body as BodyInit,
    }),
  )
}

export const wordsOf = (error: unknown): string =>
  error instanceof ApiError ? error.body.message : 'That could not be heard. Try once more.'
