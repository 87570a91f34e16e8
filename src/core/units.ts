/** How lengths are shown. */
export type Units = 'metric' | 'imperial';

const inch = 0.0254;

/** Feet and inches to the nearest half inch: 8′ 2″. */
function feetAndInches(metres: number): string {
  const halves = Math.round((Math.abs(metres) / inch) * 2);
  const feet = Math.floor(halves / 24);
  const inches = (halves - feet * 24) / 2;
  const text = inches === Math.floor(inches) ? `${inches}` : `${Math.floor(inches) || ''}½`;
  const sign = metres < 0 && halves > 0 ? '−' : '';
  return feet === 0 ? `${sign}${text}″` : `${sign}${feet}′ ${text}″`;
}

/** A length in metres as a tape shows it: "248 cm", "12.4 m", "8′ 1½″". */
export function sayLength(metres: number, units: Units): string {
  if (metres === Infinity) return 'the horizon';
  if (units === 'imperial') return feetAndInches(metres);
  const centimetres = Math.round(metres * 100);
  if (Math.abs(centimetres) < 1000) return `${centimetres}`.replace('-', '−') + ' cm';
  return `${metres.toFixed(1).replace('-', '−')} m`;
}

/** A distance to one side of the lens: "70 cm left"; right counts up. */
export const sayAside = (metres: number, units: Units): string =>
  metres === 0 ? 'straight ahead' : `${sayLength(Math.abs(metres), units)} ${metres < 0 ? 'left' : 'right'}`;

/** Reads what `sayAside` says; without a side, a sign tells it. Metres to the right; null for anything else. */
export function readAside(text: string, units: Units): number | null {
  const [, plain, side] = /^(.*?)\s*(left|right)?$/i.exec(text.trim()) ?? [];
  if (/^straight/i.test(plain)) return 0;
  const metres = readLength(plain, units);
  if (metres === null || !side) return metres;
  return side.toLowerCase() === 'left' ? -Math.abs(metres) : Math.abs(metres);
}

/** The same length in the other units. */
export const otherUnits = (units: Units): Units => (units === 'metric' ? 'imperial' : 'metric');

/**
 * Reads a length: bare numbers count in centimetres (metric) or inches (imperial); "2.5 m", "2m50", "250 cm",
 * "1,200 mm", "8'2", "8 ft 2 in" are understood in either. Metres; null for anything else.
 */
export function readLength(text: string, units: Units): number | null {
  // A comma parts thousands before three digits of something smaller than metres, and is a decimal sign elsewhere.
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/^([-−]?[1-9]\d{0,2}),(\d{3})(?!\d|\s*m(?!m))/, '$1$2')
    .replace(',', '.')
    .replace('−', '-')
    .replace(/½/g, '.5');
  const number = String.raw`(-?\d*\.?\d+)`;
  const both = new RegExp(`^${number}\\s*m\\s*(\\d{2}|\\d{1,2}\\s*cm)$`).exec(plain);
  if (both) return Number(both[1]) + (Math.sign(Number(both[1])) || 1) * (parseInt(both[2]) / 100);
  const metric = new RegExp(`^${number}\\s*(mm|cm|m)$`).exec(plain);
  if (metric) return Number(metric[1]) * { mm: 0.001, cm: 0.01, m: 1 }[metric[2] as 'mm' | 'cm' | 'm'];
  const feet = new RegExp(`^${number}\\s*(?:ft|feet|['′])\\s*(?:${number}\\s*(?:in|"|″|'')?)?$`).exec(plain);
  if (feet) return (Number(feet[1]) * 12 + Math.sign(Number(feet[1]) || 1) * Number(feet[2] ?? 0)) * inch;
  const inches = new RegExp(`^${number}\\s*(?:in|"|″)$`).exec(plain);
  if (inches) return Number(inches[1]) * inch;
  const bare = new RegExp(`^${number}$`).exec(plain);
  if (!bare) return null;
  return Number(bare[1]) * (units === 'metric' ? 0.01 : inch);
}
