const KEY = 'spissus-voice'

/** A voice that speaks on the device itself: what a pot is doing is sent nowhere. */
function ownVoice(): SpeechSynthesisVoice | undefined {
  if (!('speechSynthesis' in window)) return undefined
  return speechSynthesis.getVoices().find((voice) => voice.localService && voice.lang.startsWith('en'))
}

// A browser looks for its voices when it is first asked.
ownVoice()

/** Whether the device can read aloud at all, and whether the cook wants it to. */
export const canSpeak = () => ownVoice() !== undefined
export const readsAloud = () => localStorage.getItem(KEY) === 'on' && canSpeak()

export function switchVoice(): void {
  if (localStorage.getItem(KEY) === 'on') localStorage.removeItem(KEY)
  else localStorage.setItem(KEY, 'on')
}

/** Reads a sentence aloud, instead of what was being read. */
export function speak(text: string): void {
  const voice = ownVoice()
  if (!voice) return
  const said = new SpeechSynthesisUtterance(text)
  said.voice = voice
  said.lang = voice.lang
  speechSynthesis.cancel()
  speechSynthesis.speak(said)
}
