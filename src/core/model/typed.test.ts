import { describe, expect, it } from 'vitest';
import { films, momentKinds } from '../recipes/films';
import { isWrongType } from './typed';

const wrong = (kind: string, field: string, after: unknown) => isWrongType({ kind, field, after });

describe('the type of what a change writes', () => {
  it('is wrong where it can never stand in its field, however deep that lies', () => {
    expect(wrong('mark', 'x', 'left')).toBe(true);
    expect(wrong('mark', 'name', 7)).toBe(true);
    expect(wrong('log', 'tags', 'bumped')).toBe(true);
    expect(wrong('log', 'seen', {})).toBe(true);
    expect(wrong('log', 'passage', { at: 'now', from: 0, speed: 1 })).toBe(true);
    expect(wrong('moment', 'start', '4')).toBe(true);
    expect(wrong('moment', 'slots.left.take', 12)).toBe(true);
    expect(wrong('setup', 'capture.rate', [24, 1])).toBe(true);
    expect(wrong('project', 'rate', { num: '24', den: 1 })).toBe(true);
    expect(wrong('take', 'alive', 'yes')).toBe(true);
  });

  it('is right for all that devices write, also where something is taken away or not known here', () => {
    expect(wrong('mark', 'x', 3)).toBe(false);
    expect(wrong('mark', 'x', 1e300)).toBe(false); // out of range: passed over, not refused
    expect(wrong('log', 'take', null)).toBe(false);
    expect(wrong('log', 'tags.bumped', true)).toBe(false);
    expect(wrong('log', 'passage', undefined)).toBe(false);
    expect(wrong('moment', 'slots.left.take', 'a take')).toBe(false);
    expect(wrong('moment', 'settings.yet-unknown', 'anything')).toBe(false);
    expect(wrong('kite', 'string', 7)).toBe(false);
    for (const kind of momentKinds) {
      expect(wrong('moment', 'settings', films[kind].start)).toBe(false);
      for (const [field, value] of Object.entries(films[kind].start))
        expect(wrong('moment', `settings.${field}`, value), `${kind} ${field}`).toBe(false);
    }
  });
});
