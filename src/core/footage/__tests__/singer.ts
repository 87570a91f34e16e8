import { seeded } from '../../random';

/** samples a second of a singer's voice */
export const voiceRate = 8000;

/** A voice of so many seconds, and how far its mouth is open at a second of it. */
export type Singer = { sound: Float32Array; open: (seconds: number) => number };

/** A sound that a mouth makes: how far it is open for it, and at which frequencies it rings. */
const vowels = [
  { open: 1, rings: [730, 1090, 2440] },
  { open: 0.65, rings: [530, 1840, 2480] },
  { open: 0.3, rings: [270, 2290, 3010] },
  { open: 0.6, rings: [570, 840, 2410] },
  { open: 0.2, rings: [300, 870, 2240] },
];

/**
 * Somebody who sings words that nobody knows: vowels with their formants (Peterson & Barney 1952) between closed lips
 * and hisses, in lines with a breath after each.
 */
export function singer(seconds: number, seed: number): Singer {
  const next = seeded(seed);
  const sound = new Float32Array(Math.round(seconds * voiceRate));
  const opens: { at: number; length: number; open: number }[] = [];
  for (let at = 0.2; at < seconds;) {
    for (let left = 4 + Math.floor(6 * next()); left > 0 && at < seconds; left--) {
      const { open, rings } = vowels[Math.floor(vowels.length * next())];
      const [length, pitch, hiss] = [0.12 + 0.3 * next(), 140 + 160 * next(), 0.05 + 0.06 * next()];
      for (let step = 0; step < hiss * voiceRate; step++) {
        const place = Math.round(at * voiceRate) + step;
        if (place < sound.length) sound[place] += 0.03 * (next() - 0.5);
      }
      const begin = Math.round((at + hiss) * voiceRate);
      for (let step = 0; step < length * voiceRate && begin + step < sound.length; step++) {
        const t = step / voiceRate;
        const swell = Math.sin((Math.PI * t) / length) ** 0.5;
        for (let partial = 1; partial * pitch < 3600; partial++) {
          const strength = rings.reduce(
            (sum, ring, at) => sum + 1 / (1 + ((partial * pitch - ring) / 90) ** 2) / (1 + at),
            0.02,
          );
          sound[begin + step] +=
            0.25 * open ** 0.5 * swell * strength * Math.sin(2 * Math.PI * partial * pitch * t);
        }
      }
      opens.push({ at: at + hiss, length, open: open * (0.7 + 0.6 * next()) });
      at += hiss + length;
    }
    at += 0.2 + 0.9 * next();
  }
  const open = (time: number) =>
    opens.reduce((sum, one) => {
      const t = time - one.at;
      return t > 0 && t < one.length ? sum + one.open * Math.sin((Math.PI * t) / one.length) : sum;
    }, 0.05);
  return { sound, open };
}
