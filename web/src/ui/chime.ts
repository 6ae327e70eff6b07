const TONES_HZ = [660, 880, 1320]
const APART_S = 0.22
const LOUDNESS = 0.12

/** Three rising tones; silent where the browser has not been touched yet or has no sound. */
export function chime(): void {
  try {
    const context = new AudioContext()
    TONES_HZ.forEach((hz, n) => {
      const from = context.currentTime + n * APART_S
      const tone = context.createOscillator()
      const loud = context.createGain()
      tone.frequency.value = hz
      loud.gain.setValueAtTime(LOUDNESS, from)
      loud.gain.exponentialRampToValueAtTime(0.0005, from + APART_S)
      tone.connect(loud).connect(context.destination)
      tone.start(from)
      tone.stop(from + APART_S)
    })
    setTimeout(() => void context.close(), 2000)
  } catch {
    // a notice on the screen says the same
  }
  if ('vibrate' in navigator) navigator.vibrate([200, 100, 200])
}
