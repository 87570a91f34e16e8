import { describe, expect, it } from 'vitest';
import { coveredCells } from '../footage/presence';
import type { Comparison, TakeMeasure } from '../model/measures';
import { chosenTake, nobody } from './__tests__/chosen';
import { sortTake } from './sort-take';

const rate = { num: 24, den: 1 };
const { measure: plate } = chosenTake('plate', { width: 1280, height: 720 }, rate, 48);
const measured = plate as TakeMeasure;
const still = { ...measured, motion: { share: 0, across: 0.5 } };
const lit = (light: Partial<NonNullable<TakeMeasure['light']>>): TakeMeasure => ({
  ...still,
  light: { dark: 0, blown: 0, flicker: 0, ...light },
});

/** A take that fits the plate, somebody standing in those columns, as shares of the width. */
function held(spans: readonly (readonly [number, number])[], agreement = 0.9): Comparison {
  const { width, height } = coveredCells;
  const covered = Uint8Array.from({ length: width * height }, (_, cell) => {
    const [x, y] = [((cell % width) + 0.5) / width, Math.floor(cell / width) / height];
    return y > 0.3 && spans.some(([from, until]) => x > from && x < until) ? 1 : 0;
  });
  return {
    path: {} as Comparison['path'],
    left: 0,
    colour: null,
    agreement,
    covered,
    standing: nobody,
  };
}

describe('what a take was filmed for', () => {
  it('is the side on which somebody stands, and a plate where nobody does', () => {
    expect(sortTake(measured, plate, held([[0.1, 0.35]]))).toEqual({ slot: 'left' });
    expect(sortTake(measured, plate, held([[0.6, 0.9]]))).toEqual({ slot: 'right' });
    // Who reaches over the middle to touch the other one stands where most of them is.
    expect(sortTake(measured, plate, held([[0.2, 0.56]]))).toEqual({ slot: 'left' });
    expect(sortTake(measured, plate, held([]))).toEqual({ slot: 'plate' });
  });

  it('is a plate where nothing moves and there is none yet, and open where somebody does', () => {
    expect(sortTake(still, null, null)).toEqual({ slot: 'plate' });
    expect(sortTake(measured, null, null)).toEqual({ doubt: 'no-plate' });
    const { measure: single } = chosenTake('single', { width: 1280, height: 720 }, rate, 1);
    const one = { ...still, times: (single as TakeMeasure).times };
    expect(sortTake(one, null, null)).toEqual({ doubt: 'one-picture' });
    expect(sortTake(one, plate, held([]))).toEqual({ slot: 'plate' });
  });

  // A real street once had three takes of the right, a black clip was a second plate, another place the left.
  it('is open, with the reason, for what was never filmed for it', () => {
    expect(sortTake(lit({ dark: 1 }), null, null)).toEqual({ doubt: 'dark' });
    expect(sortTake(lit({ blown: 0.9 }), plate, held([]))).toEqual({ doubt: 'blown' });
    expect(sortTake(measured, plate, held([[0.1, 0.3]], 0.1))).toEqual({ doubt: 'other-place' });
    expect(sortTake(still, plate, held([], 0.2))).toEqual({ doubt: 'other-place' });
    expect(sortTake(measured, plate, held([[0.05, 0.95]]))).toEqual({ doubt: 'everywhere' });
    const street = held([
      [0.1, 0.3],
      [0.6, 0.8],
    ]);
    expect(sortTake(measured, plate, street)).toEqual({ doubt: 'everywhere' });
    const upright = { ...measured, size: { width: 720, height: 1280 } };
    expect(sortTake(upright, plate, null)).toEqual({ doubt: 'other-size' });
  });

  it('is not said before enough was measured', () => {
    expect(sortTake({ ...measured, light: null }, plate, held([]))).toBeNull();
    expect(sortTake({ ...measured, motion: null }, plate, held([]))).toBeNull();
    expect(sortTake(measured, plate, null)).toBeNull();
  });
});
