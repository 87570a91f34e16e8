'use client';

let context: AudioContext | null = null;

/**
 * The page's way to the loudspeaker. Browsers let it sound only once it was asked for within a press; called from
 * one, it may be used for alarms that come later.
 */
export function soundOut(): AudioContext {
  context ??= new AudioContext();
  void context.resume();
  return context;
}

/**
 * A short tone, for alarms and timers.
 * @param later seconds from now
 * @returns takes it back
 */
export function beep({ hertz = 880, seconds = 0.18, later = 0 } = {}): () => void {
  const out = soundOut();
  const tone = out.createOscillator();
  const gain = out.createGain();
  gain.gain.value = 0.25;
  tone.frequency.value = hertz;
  tone.connect(gain).connect(out.destination);
  const at = out.currentTime + later;
  tone.start(at);
  tone.stop(at + seconds);
  tone.onended = () => gain.disconnect();
  return () => {
    tone.stop();
    gain.disconnect();
  };
}
