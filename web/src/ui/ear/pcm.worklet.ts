/// <reference lib="webworker" />
/** Passes what the microphone hears on, a block at a time; runs in the audio thread. */
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void

const BLOCK = 512

class Pcm extends AudioWorkletProcessor {
  private block = new Float32Array(BLOCK)
  private filled = 0

  process(inputs: Float32Array[][]): boolean {
    const heard = inputs[0]?.[0]
    if (!heard) return true
    for (const sample of heard) {
      this.block[this.filled++] = sample
      if (this.filled === BLOCK) {
        this.port.postMessage(this.block)
        this.block = new Float32Array(BLOCK)
        this.filled = 0
      }
    }
    return true
  }
}

registerProcessor('pcm', Pcm)

export {}
