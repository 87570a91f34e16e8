import { describe, expect, it } from 'vitest';
import { chosenPainters, trialSchema, untried, type PainterTrial } from './painters';

const trial = (more: Partial<PainterTrial> = {}): PainterTrial => ({
  version: 1,
  name: 'a card',
  stage: { processor: 9, card: 3 },
  whole: { processor: 120, card: 20 },
  rest: { processor: 200, card: 5 },
  ...more,
});

describe('who paints', () => {
  it('is whoever was faster, for the stage, for renders and for what planes cannot hold', () => {
    expect(chosenPainters(trial(), 'stage')).toEqual({ plain: 'card', rest: 'card' });
    const slow = trial({ stage: { processor: 9, card: 800 }, whole: { processor: 120, card: null } });
    expect(chosenPainters(slow, 'stage')).toEqual({ plain: 'processor', rest: 'card' });
    expect(chosenPainters(slow, 'whole')).toEqual({ plain: 'processor', rest: 'card' });
  });

  it('is the processor before anything was measured, without a card, and where the card gains little', () => {
    expect(chosenPainters(null, 'whole')).toEqual(untried);
    const even = { processor: 10, card: 9 };
    expect(chosenPainters(trial({ stage: even, rest: { processor: 4, card: null } }), 'stage')).toEqual(
      untried,
    );
  });

  it('is not taken from what cannot be a measurement', () => {
    expect(trialSchema.safeParse(trial()).success).toBe(true);
    for (const wrong of [null, {}, { ...trial(), version: 2 }, trial({ stage: { processor: -1, card: 1 } })])
      expect(trialSchema.safeParse(wrong).success).toBe(false);
  });
});
