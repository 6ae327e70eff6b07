import { api, ApiError, unwrap, type Schemas } from '../../../api/client'
import { toPcm } from './catcher'

export type Heard = Schemas['HeardOut']
export type HeardFile = Schemas['HeardFileOut']

/** One tap to the server, and what it read; no rod is the middle of the head. */
export function hearTap(
  job: string,
  lap: number,
  rod: number | null,
  samples: Float32Array,
  rate: number,
): Promise<Heard> {
  return unwrap(
    api.POST('/api/hearing/jobs/{job_id}/tap', {
      params: { path: { job_id: job }, query: { rate: Math.round(rate), lap, ...(rod ? { rod } : {}) } },
      body: toPcm(samples) as never,
      bodySerializer: (body: unknown) => body as BodyInit,
      headers: { 'Content-Type': 'application/octet-stream' },
    }),
  )
}

/** Tap the demo's simulated drum. */
export function hearSimulated(job: string, rod: number, lap: number): Promise<Heard> {
  return unwrap(
    api.POST('/api/hearing/jobs/{job_id}/simulated', {
      params: { path: { job_id: job } },
      body: { rod, lap },
    }),
  )
}

/** A recording of a round, while these rods are still to be read in this order. */
export function hearFile(job: string, lap: number, rods: readonly number[], file: File): Promise<HeardFile> {
  const form = new FormData()
  form.append('sound', file)
  form.append('lap', String(lap))
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
