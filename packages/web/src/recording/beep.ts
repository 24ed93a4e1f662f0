const tones = { tick: { hertz: 660, seconds: 0.08 }, go: { hertz: 990, seconds: 0.35 } };

let context: AudioContext | null = null;

/** A short tone; where a page may not sound, it stays silent. */
export function beep(tone: keyof typeof tones): void {
  if (typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  const { hertz, seconds } = tones[tone];
  const oscillator = context.createOscillator();
  const gain = context.createGain();
  oscillator.frequency.value = hertz;
  gain.gain.setValueAtTime(0.15, context.currentTime);
  gain.gain.exponentialRampToValueAtTime(0.001, context.currentTime + seconds);
  oscillator.connect(gain).connect(context.destination);
  oscillator.start();
  oscillator.stop(context.currentTime + seconds);
}
