import { describe, expect, it } from 'vitest';
import { valueAt } from '../motion/keyframes';
import type { Moment } from '../model/records';
import { groupOf, nodesIn } from '../picture/node';
import type { Anchor, Ruler } from '../recipes/recipe';
import { explainLook, withLook } from './look';
import { changedIn, lookNames, lookQuantities, lookSchema, type Look } from './schema';

const size = { width: 1920, height: 1080 };
const ruler = { project: size } as unknown as Ruler;
const anchors = [{ name: 'lands', frame: 40 }] as unknown as Anchor[];
const tree = groupOf('all', size, { from: 20, until: 80 }, []);
const looking = (look?: Look) => ({ look }) as Moment;
const built = (look?: Look) => withLook(tree, looking(look), anchors, ruler);

describe('the look of a moment', () => {
  it('is nothing where nobody said one, or all of it is as filmed', () => {
    expect(built()).toBe(tree);
    const plain = Object.fromEntries(lookNames.map((name) => [name, lookQuantities[name].plain]));
    expect(built(plain as Look)).toBe(tree);
    // How a line is turned says nothing without a line.
    expect(built({ along: 30 })).toBe(tree);
    expect(explainLook(looking({ along: 30 }), anchors)).toEqual([]);
  });

  it('is one effect for each thing that is said, over the same frames', () => {
    for (const name of lookNames.filter((one) => one !== 'along')) {
      const { max } = lookQuantities[name];
      const looked = built({ [name]: max });
      expect(looked).toMatchObject({ from: 20, until: 80 });
      const effects = nodesIn(looked).flatMap((node) => node.effects);
      expect([effects.length, name]).toEqual([name === 'grain' ? 0 : 1, name]);
      expect(nodesIn(looked).some(({ content }) => content.is === 'noise')).toBe(name === 'grain');
      expect(explainLook(looking({ [name]: max }), anchors)[0].rows).toMatchObject([{ value: max }]);
    }
  });

  it('strikes on the landing and dies away, where it is a hit', () => {
    const looked = built({ brightness: 220, when: 'hit', dies: 10 });
    const [effect] = looked.effects;
    if (effect.is !== 'colours') throw new Error('It has no colours.');
    const bright = [20, 39, 40, 45, 50, 70].map((frame) => valueAt(effect.brightness, frame));
    expect(bright[0]).toBe(1);
    expect(bright[1]).toBe(1);
    expect(bright[2]).toBeCloseTo(2.2, 6);
    expect(bright[3]).toBeGreaterThan(1.1);
    expect(bright[3]).toBeLessThan(2.1);
    expect(bright.slice(4)).toEqual([1, 1]);
    // What is not said stays as filmed through it.
    expect(valueAt(effect.saturation, 40)).toBe(1);
  });

  it('is refused beyond its limits', () => {
    for (const name of lookNames) {
      const { min, max } = lookQuantities[name];
      expect(lookSchema.safeParse({ [name]: max + 1 }).success).toBe(false);
      expect(lookSchema.safeParse({ [name]: min - 1 }).success).toBe(false);
      expect(lookSchema.safeParse({ [name]: max }).success).toBe(true);
    }
    expect(changedIn({ glow: 10, toneOf: 'blue' })).toEqual(['glow']);
  });
});
