import workletUrl from './pcm.worklet.ts?worker&url'

export interface Open {
  context: AudioContext
  /** What is listening, as the browser names it; and what else could. */
  device: string
  others: Device[]
  close: () => void
}

export interface Device {
  id: string
  name: string
}

const RAW: MediaTrackConstraints = {
  echoCancellation: false,
  noiseSuppression: false,
  autoGainControl: false,
}

/** Why the microphone cannot be had, and that nothing is lost by it. */
export function whyNot(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  const typing = 'Typing still works.'
  if (name === 'NotAllowedError')
    return `The microphone was refused. Allow it for this site in the browser, then try again. ${typing}`
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return `No such microphone was found. Plug one in, or choose another. ${typing}`
  if (name === 'NotReadableError')
    return `Another program holds the microphone. Close it there, then try again. ${typing}`
  return `This browser gives no sound here; it needs a secure page (https, or this machine itself). ${typing}`
}

async function devicesBeside(used: string | undefined): Promise<Device[]> {
  const all = await navigator.mediaDevices.enumerateDevices()
  return all
    .filter((each) => each.kind === 'audioinput' && each.deviceId && each.deviceId !== used)
    .map((each) => ({ id: each.deviceId, name: each.label || 'another microphone' }))
}

/** Open the microphone untouched: no echo, noise or gain correction. */
export async function openMicrophone(
  onBlock: (block: Float32Array, rate: number) => void,
  onGone: () => void,
  device?: string,
): Promise<Open> {
  if (!navigator.mediaDevices) throw new DOMException('no sound here', 'NotSupportedError')
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: device ? { ...RAW, deviceId: { exact: device } } : RAW,
  })
  const context = new AudioContext()
  await context.audioWorklet.addModule(workletUrl)
  const source = context.createMediaStreamSource(stream)
  const worklet = new AudioWorkletNode(context, 'pcm')
  worklet.port.onmessage = (event: MessageEvent<Float32Array>) => onBlock(event.data, context.sampleRate)
  source.connect(worklet)
  await context.resume()
  const [track] = stream.getAudioTracks()
  track?.addEventListener('ended', onGone)
  return {
    context,
    device: track?.label ?? '',
    others: await devicesBeside(track?.getSettings().deviceId),
    close: () => {
      track?.removeEventListener('ended', onGone)
      for (const each of stream.getTracks()) each.stop()
      void context.close()
    },
  }
}
