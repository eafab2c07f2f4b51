/** The countdown said aloud, where somebody wished it on this device. */
const KEY = 'vast-stone.spoken';
export const canSpeak = (): boolean => 'speechSynthesis' in globalThis;
export const spoken = (): boolean => canSpeak() && localStorage.getItem(KEY) === '1';
export const setSpoken = (on: boolean): void => localStorage.setItem(KEY, on ? '1' : '0');

/** Says it now; what was being said ends. */
export function say(text: string): void {
  if (!spoken()) return;
  try {
    speechSynthesis.cancel();
    const words = new SpeechSynthesisUtterance(text);
    words.lang = 'en';
    speechSynthesis.speak(words);
  } catch {
    /* not heard: tone, vibration and screen say it */
  }
}
