import { ApiError } from '../../api/client'

/** The server caps a tap at half of full scale; this is taken off once more. */
const LOUDNESS = 0.7
const BETWEEN_S = 0.35

let context: AudioContext | null = null

async function fetchTap(tap: string, into: AudioContext): Promise<AudioBuffer> {
  const answer = await fetch(`/api/hearing/taps/${tap}/sound`)
  if (!answer.ok) throw new ApiError(answer.status, await answer.json())
  return into.decodeAudioData(await answer.arrayBuffer())
}

/** Play kept taps one after the other; resolves with how long that takes, in seconds. */
export async function playTaps(taps: readonly string[]): Promise<number> {
  context ??= new AudioContext()
  await context.resume()
  const into = context
  const sounds = await Promise.all(taps.map((tap) => fetchTap(tap, into)))
  const quiet = into.createGain()
  quiet.gain.value = LOUDNESS
  quiet.connect(into.destination)
  let at = into.currentTime + 0.03
  for (const sound of sounds) {
    const source = into.createBufferSource()
    source.buffer = sound
    source.connect(quiet)
    source.start(at)
    at += sound.duration + BETWEEN_S
  }
  return at - into.currentTime
}
