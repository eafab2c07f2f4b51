/** Sound, vibration and notification around the end of a hold; screen kept awake on the bench. */
let audio: AudioContext | null = null;

/** Must be called from a tap or key: browsers let a page sound only after one. */
export function armAlarm(): void {
  try {
    audio ??= new AudioContext();
    void audio.resume();
    if ('Notification' in globalThis && Notification.permission === 'default')
      void Promise.resolve(Notification.requestPermission()).catch(() => undefined);
  } catch {
    audio = null;
  }
}
/** Sounds `times` short tones. */
export function sound(times: number): void {
  try {
    tones(times);
  } catch {
    /* not heard: the screen and the vibration say it */
  }
}
function tones(times: number): void {
  if (audio && audio.state === 'running')
    for (let i = 0; i < times; i++) {
      const tone = audio.createOscillator();
      const gain = audio.createGain();
      tone.frequency.value = 880;
      gain.gain.value = 0.2;
      tone.connect(gain).connect(audio.destination);
      tone.start(audio.currentTime + i * 0.35);
      tone.stop(audio.currentTime + i * 0.35 + 0.2);
    }
  navigator.vibrate?.(Array.from({ length: times * 2 - 1 }, (_, i) => (i % 2 ? 150 : 200)));
}
/**
 * Says it on the lock screen where that is allowed: through the service worker, since some browsers refuse a page's own. An
 * alarm that cannot be shown is no reason to lose the bench: sound and screen say it too.
 */
export function notify(text: string): void {
  try {
    if (!('Notification' in globalThis) || Notification.permission !== 'granted' || !document.hidden) return;
    const said = { body: text, tag: 'hold' };
    void navigator.serviceWorker
      ?.getRegistration()
      .then((r) => r?.showNotification('Vast Stone', said))
      .catch(() => undefined);
  } catch {
    /* not shown */
  }
}
/** Keeps the screen on while the returned function is not called. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | null = null;
  let over = false;
  const take = () => {
    if (over || document.hidden || !('wakeLock' in navigator)) return;
    navigator.wakeLock.request('screen').then(
      (l) => {
        lock = l;
        if (over) void l.release();
      },
      () => undefined,
    );
  };
  take();
  document.addEventListener('visibilitychange', take);
  return () => {
    over = true;
    document.removeEventListener('visibilitychange', take);
    void lock?.release();
  };
}
