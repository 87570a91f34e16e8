/** The two sides of a coordinate; the second counts below zero. */
const sides = {
  latitude: { most: 90, plus: 'n', minus: 's', words: ['north', 'south'] },
  longitude: { most: 180, plus: 'e', minus: 'w', words: ['east', 'west'] },
} as const;

export type Coordinate = keyof typeof sides;

/**
 * Reads a coordinate as people write it: "41.15", "41,15", "−8.61", "8.61 W", "W 8° 36′ 36″", "8 36.6 west".
 * @returns degrees, south and west below zero; null where it is not understood, on the other axis or out of range
 */
export function readCoordinate(text: string, which: Coordinate): number | null {
  const { most, plus, minus } = sides[which];
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/[−–]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2');
  const named = /\b(north|south|east|west)\b|(?<![a-z])([nsew])(?![a-z])/g;
  const found = [...plain.matchAll(named)].map(([word]) => word[0]);
  if (found.length > 1 || found.some((side) => side !== plus && side !== minus)) return null;
  const rest = plain.replace(named, ' ').trim();
  const parts =
    /^(-?)\s*(\d+(?:\.\d+)?)\s*(?:°|deg|\s)?\s*(?:(\d+(?:\.\d+)?)\s*(?:['′]|min|\s)?\s*(?:(\d+(?:\.\d+)?)\s*(?:["″]|''|sec)?)?)?$/.exec(
      rest,
    );
  if (!parts) return null;
  const [minutes, seconds] = [Number(parts[3] ?? 0), Number(parts[4] ?? 0)];
  const degrees = Number(parts[2]) + minutes / 60 + seconds / 3600;
  // Only the last part may be broken: half a degree and ten minutes are two ways of saying one thing.
  const isBroken = (part: string | undefined, following: string | undefined) =>
    part !== undefined && part.includes('.') && following !== undefined;
  if (isBroken(parts[2], parts[3]) || isBroken(parts[3], parts[4])) return null;
  if (minutes >= 60 || seconds >= 60 || degrees > most) return null;
  const isMinus = parts[1] === '-' || found[0] === minus;
  if (parts[1] === '-' && found[0] === plus) return null;
  return isMinus && degrees > 0 ? -degrees : degrees;
}

/** A coordinate with its side: "8.61° west". */
export const sayCoordinate = (value: number, which: Coordinate): string =>
  `${Math.abs(value).toFixed(2)}° ${sides[which].words[value < 0 ? 1 : 0]}`;
