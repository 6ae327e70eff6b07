import { useEffect, useState } from 'react'

export interface Say {
  /** False where the device has no voice of its own. */
  there: boolean
  on: boolean
  speed: number
  toggle: () => void
  faster: () => void
}

const KEY = 'red-tally-say'
const SPEEDS = [0.8, 1, 1.25, 1.5]

function kept(): { on: boolean; speed: number } {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEY) ?? 'null')
    if (found && typeof found === 'object' && 'on' in found && 'speed' in found)
      return { on: Boolean(found.on), speed: Number(found.speed) || 1 }
  } catch {
    // Storage refused or spoilt: silent, at an even pace.
  }
  return { on: false, speed: 1 }
}

function keep(now: { on: boolean; speed: number }): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(now))
  } catch {
    // Storage refused: it lasts as long as the page.
  }
}

/** A voice that lives on the device: it works without network, and nothing said leaves it. */
function ownVoice(): SpeechSynthesisVoice | undefined {
  if (typeof speechSynthesis === 'undefined') return undefined
  const own = speechSynthesis.getVoices().filter((each) => each.localService)
  return own.find((each) => each.lang.startsWith('en')) ?? own[0]
}

/** Reads the next instruction out, where that is wanted and the device has a voice of its own. Nothing depends on it. */
export function useSay(words: string): Say {
  const [now, set] = useState(kept)
  const [voice, setVoice] = useState(ownVoice)
  useEffect(() => {
    if (typeof speechSynthesis === 'undefined') return
    const look = () => setVoice(ownVoice())
    speechSynthesis.addEventListener('voiceschanged', look)
    return () => speechSynthesis.removeEventListener('voiceschanged', look)
  }, [])
  useEffect(() => {
    if (!now.on || !voice) return
    const said = new SpeechSynthesisUtterance(words)
    said.voice = voice
    said.rate = now.speed
    speechSynthesis.cancel()
    speechSynthesis.speak(said)
    return () => speechSynthesis.cancel()
  }, [words, now, voice])
  const change = (next: { on: boolean; speed: number }) => {
    keep(next)
    set(next)
  }
  return {
    there: Boolean(voice),
    ...now,
    toggle: () => change({ ...now, on: !now.on }),
    faster: () => change({ ...now, speed: SPEEDS[(SPEEDS.indexOf(now.speed) + 1) % SPEEDS.length] ?? 1 }),
  }
}
