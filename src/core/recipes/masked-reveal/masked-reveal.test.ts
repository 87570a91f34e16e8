import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { Fall } from '../../footage/fall';
import { canPaint } from '../../picture/draw-list';
import { matrixAt, mediaIn, secondsAt, showsAt } from '../../picture/node';
import { paintFrame } from '../../picture/reference/paint';
import { frameOfBeat, regularGrid } from '../../time/grid';
import { base, chosenTake, projectOf } from '../__tests__/chosen';
import type { Material } from '../material';
import { maskedReveal } from '.';
import type { Followed } from '../../footage/track/track';
import { revealFrames, type RevealMoment } from './takes';

const size = { width: 96, height: 54 };
const rate = { num: 25, den: 1 };
const ruler = { grid: regularGrid(120, 0.1, 60), project: projectOf(size, rate) };
const moment: RevealMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'masked-reveal',
  name: 'New clothes',
  start: 8,
  lands: 10,
  end: 16,
  settings: { edge: 'line', frames: 20, soft: 0 },
  slots: { before: { take: 'one' }, after: { take: 'two', at: 2 }, fall: { take: 'three', at: 1 } },
};
const set = (
  settings: Partial<RevealMoment['settings']>,
  more: Partial<RevealMoment> = {},
): RevealMoment => ({
  ...moment,
  ...more,
  settings: { ...moment.settings, ...settings },
});
const material = (takes: Material['takes'] = {}): Material => ({
  takes: {
    before: chosenTake('one', size, rate, 250),
    after: chosenTake('two', size, rate, 250),
    fall: chosenTake('three', size, rate, 250),
    ...takes,
  },
  solved: {},
});
const codes = (given: RevealMoment, of = material()) =>
  maskedReveal.examine(given, ruler, of).map(({ severity, code }) => `${severity} ${code}`);
const lights: Record<string, number> = { 'media-one': 200, 'media-two': 90, 'media-three': 30 };
const lit = (light: number) => painted(size, () => [light, light, light]);
const paint = (given: RevealMoment, frame: number) =>
  paintFrame(maskedReveal.build(given, ruler, material()), frame, size, (media) => lit(lights[media])).data;
/** Share of the frame that shows a light. */
const shareOf = (given: RevealMoment, frame: number, light: number) => {
  const data = paint(given, frame);
  let count = 0;
  for (let pixel = 0; pixel < data.length; pixel += 4) if (data[pixel] === light) count++;
  return count / (data.length / 4);
};
const { lands, done } = revealFrames(moment, ruler);

describe('the masked reveal', () => {
  it('begins on the frame of its beat and is done when it says, whatever its edge', () => {
    expect(lands).toBe(frameOfBeat(ruler.grid, rate, 10));
    for (const edge of ['line', 'circle', 'falling'] as const)
      for (const soft of [0, 30]) {
        const given = set({ edge, soft });
        const into = edge === 'falling' ? 30 : 90;
        expect(shareOf(given, lands, 200)).toBe(1);
        expect(shareOf(given, lands + 10, 200)).toBeLessThan(1);
        expect(shareOf(given, done, into)).toBe(1);
      }
  });

  it('moves its line evenly towards its angle', () => {
    for (const [angle, x, y] of [
      [0, 10, 27],
      [180, 86, 27],
      [90, 48, 5],
      [270, 48, 49],
    ]) {
      const given = set({ angle });
      expect(shareOf(given, lands + 5, 90)).toBeCloseTo(0.25, 1);
      expect(shareOf(given, lands + 15, 90)).toBeCloseTo(0.75, 1);
      expect(paint(given, lands + 10)[4 * (y * size.width + x)]).toBe(90);
    }
  });

  it('falls from rest, ever faster', () => {
    // Distances as the square of the time: a quarter of the way at half the time.
    const given = set({ edge: 'falling' });
    expect(shareOf(given, lands + 10, 30)).toBeCloseTo(0.25, 1);
    expect(shareOf(given, lands + 15, 30)).toBeCloseTo(0.5625, 1);
  });

  it('follows what was measured to fall, or says by how much it does not', () => {
    const found = (fall: Fall | null): Material => ({
      ...material(),
      solved: { fall: { method: 'fall-1', fall } },
    });
    const falling = set({ edge: 'falling' });
    const said = (given: RevealMoment, fall: Fall | null) =>
      maskedReveal
        .examine(given, ruler, found(fall))
        .filter(({ code }) => /fall|follows|free/.test(code))
        .map(({ severity, code }) => `${severity} ${code}`);
    expect(said(falling, { begins: 1, lasts: 0.8, off: 0.01 })).toEqual(['fine reveal.follows']);
    expect(said(falling, { begins: 1.2, lasts: 0.8, off: 0.01 })).toEqual(['fix reveal.fall-differs']);
    expect(said(falling, { begins: 1, lasts: 1.2, off: 0.01 })).toEqual(['fix reveal.fall-differs']);
    expect(said(falling, { begins: 1, lasts: 0.8, off: 0.2 })).toEqual([
      'fine reveal.follows',
      'watch reveal.not-free',
    ]);
    expect(said(falling, null)).toEqual(['watch reveal.no-fall']);
    expect(said(set({ edge: 'circle' }), null)).toEqual([]);
    const [differs] = maskedReveal
      .examine(falling, ruler, found({ begins: 1.3, lasts: 1.2, off: 0 }))
      .filter(({ fix }) => fix);
    expect(differs.fix).toEqual({
      command: 'followFall',
      args: { moment: 'm', slot: 'fall', begins: 1.3, frames: 30 },
    });
    const after = set({ edge: 'falling', frames: 30, falls: { fall: 1.3 } });
    expect(said(after, { begins: 1.3, lasts: 1.2, off: 0 })).toEqual(['fine reveal.follows']);
    expect(maskedReveal.works(falling, ruler, material()).map(({ is }) => is)).toEqual(['fall']);
    expect(maskedReveal.works(moment, ruler, material())).toEqual([]);
  });

  it('grows its circle from where it is put', () => {
    const data = paint(set({ edge: 'circle', across: 25, down: 50 }), lands + 4);
    expect(data[4 * (27 * size.width + 24)]).toBe(90);
    expect(data[4 * (27 * size.width + 80)]).toBe(200);
  });

  it('is painted on planes in every frame, and built as far as it can be', () => {
    for (const given of [
      moment,
      set({ edge: 'circle' }),
      set({ edge: 'falling' }),
      { ...moment, lands: 16 },
    ]) {
      const tree = maskedReveal.build(given, ruler, material());
      for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
    }
    expect(mediaIn(maskedReveal.build(moment, ruler, { takes: {}, solved: {} }))).toEqual([]);
  });

  it('says what is missing, too short, cramped, the same, or out of turn', () => {
    expect(codes(moment)).toEqual(['fine reveal.lands']);
    expect(codes(moment, material({ after: null }))).toContain('stop reveal.missing');
    expect(codes(set({ edge: 'falling' }), material({ after: null }))).toEqual(['fine reveal.lands']);
    expect(codes(set({ edge: 'falling' }), material({ fall: null }))).toContain('stop reveal.missing');
    expect(codes(moment, material({ before: chosenTake('one', size, rate, 20) }))).toContain(
      'stop reveal.short',
    );
    expect(codes({ ...moment, lands: 16 })).toContain('stop reveal.never-lands');
    expect(codes(set({ frames: 100 }))).toContain('fix reveal.cramped');
    const one = chosenTake('one', size, rate, 250);
    expect(
      codes({ ...moment, slots: { after: { at: 1 } } }, material({ before: one, after: one })),
    ).toContain('fix reveal.same-take');
  });

  it('follows a shape that is drawn frame by frame, and says where that stops short', () => {
    const square = (left: number, right: number): [number, number][] => [
      [left, -0.1],
      [right, -0.1],
      [right, 1.1],
      [left, 1.1],
    ];
    const shape = [
      { after: 0, ring: square(-0.2, -0.1) },
      { after: 10, ring: square(-0.2, 0.5) },
    ];
    const drawn = set({ edge: 'drawn', shape });
    const at = (frame: number, column: number) => paint(drawn, frame)[4 * (27 * size.width + column)];
    // Half-way its edge lies at a fifth of the width.
    expect([at(lands + 5, 17), at(lands + 5, 21), at(lands + 10, 46), at(lands + 30, 50)]).toEqual([
      90, 200, 90, 200,
    ]);
    expect(codes(drawn)).toEqual(['fine reveal.lands', 'watch reveal.partial']);
    expect(codes(set({ edge: 'drawn' }))).toEqual(['fine reveal.lands']);
    const outline = maskedReveal.outline(drawn, material(), ruler, lands + 5);
    expect(outline).toMatchObject({ state: 'drawn', keys: [lands, lands + 10] });
    const next = outline?.drawn?.(square(0, 0.9)) as typeof shape;
    expect(next.map(({ after }) => after)).toEqual([0, 5, 10]);
    expect(maskedReveal.outline(moment, material(), ruler, lands)).toBeNull();
  });

  it('lets what falls begin to fall on its beat, in both takes, where that was marked', () => {
    const falling = set({ edge: 'falling', falls: { before: 3, fall: 2.5 } });
    const seconds = (given: RevealMoment, id: string, frame: number) => {
      const node = mediaIn(maskedReveal.build(given, ruler, material())).find((one) => one.id === id);
      return node && secondsAt(node, frame);
    };
    expect(seconds(falling, 'before', lands)).toBeCloseTo(3, 9);
    expect(seconds(falling, 'fall', lands)).toBeCloseTo(2.5, 9);
    // Another edge has nothing that falls: the in-points count again.
    expect(seconds(set({ falls: { before: 3, fall: 2.5 } }), 'after', lands)).toBeCloseTo(2, 9);
    expect(codes(falling)).toEqual(['fine reveal.lands']);
    expect(codes(set({ edge: 'falling', falls: { before: 0.2 } }))).toContain('fix reveal.early');
  });

  // A falling part at 200 %: CRAFT.md, starting values. After it the take is where the song is.
  it('runs faster while it changes, cuts to closer, and is with the song again', () => {
    const given = set({ fast: 200, closer: 30 });
    const tree = maskedReveal.build(given, ruler, material());
    const shown = (slot: string, frame: number) =>
      mediaIn(tree)
        .filter((node) => node.id.startsWith(slot) && showsAt(node, frame))
        .map((node) => secondsAt(node, frame));
    const second = 1 / 25;
    expect(shown('after', lands)).toEqual([2]);
    expect(shown('after', lands + 10)[0]).toBeCloseTo(2 + 20 * second, 9);
    expect(shown('after', done)[0]).toBeCloseTo(2 + 20 * second, 9);
    expect(shown('after', done + 10)[0]).toBeCloseTo(2 + 30 * second, 9);
    const since = (lands - tree.from) * second;
    expect(shown('before', lands - 1)[0]).toBeCloseTo(since - second, 9);
    expect(shown('before', lands + 10)[0]).toBeCloseTo(since + 20 * second, 9);
    expect(shown('before', done)).toEqual([]);
    const scale = (frame: number) =>
      mediaIn(tree)
        .filter((node) => showsAt(node, frame))
        .map((node) => matrixAt(node, frame)[0]);
    expect([scale(done - 1)[0], scale(done)[0]]).toEqual([1, 1.3]);
    expect(codes(given)).toEqual(['fine reveal.lands']);
    expect(codes(set({ fast: 200, closer: 100 }))).toContain('watch reveal.soft');
    expect(codes(set({ fast: 200 }))).toContain('watch reveal.jumps');
    const short = material({ after: chosenTake('two', size, rate, 60) });
    expect(codes(set({ frames: 40, fast: 400 }), short)).toContain('stop reveal.short');
    for (let frame = tree.from; frame < tree.until; frame += 3) expect(canPaint(tree, frame)).toBe(true);
    for (const corner of [0, 4 * (size.width * size.height - 1)])
      expect(paint(given, done + 2)[corner]).toBe(90);
  });

  it('says itself in a sentence and in numbers', () => {
    const fields = (given: RevealMoment) =>
      maskedReveal
        .say(given, ruler, material())
        .flatMap((part) => (typeof part !== 'string' && 'field' in part ? [part.field] : []));
    expect(fields(moment)).toEqual(['edge', 'angle', 'frames', 'soft', 'fast', 'closer']);
    expect(fields(set({ edge: 'circle' }))).toContain('across');
    expect(fields(set({ edge: 'falling' }))).toEqual([
      'edge',
      'falls.before',
      'falls.fall',
      'frames',
      'soft',
      'fast',
      'closer',
    ]);
    const steps = maskedReveal.explain(
      moment,
      ruler,
      material(),
      maskedReveal.build(moment, ruler, material()),
    );
    expect(steps).toHaveLength(2);
    const rows = steps[1].rows.filter(({ what }) => what === 'mask point 1, down');
    expect(rows.map(({ frame, then }) => [frame, then])).toEqual([
      [lands, 'moves evenly'],
      [done, 'stays'],
    ]);
  });
});

describe('a drawn edge that goes with what lies under it', () => {
  const square = (x: number): [number, number][] => [
    [x, 0.4],
    [x + 0.2, 0.4],
    [x + 0.2, 0.7],
    [x, 0.7],
  ];
  const goes = (
    shape: { after: number; ring: [number, number][] }[] | null,
    follows: 'before' | 'after' = 'before',
  ) => set({ edge: 'drawn', shape, follows });
  const once = goes([{ after: 0, ring: square(0.1) }]);
  const seconds = (frame: number) => (frame - revealFrames(moment, ruler).start) / 25;
  /** A thing that goes right by a hundredth of the width a frame, found in every picture. */
  const found = (until: number, lost: number[] = []): Material => ({
    ...material(),
    solved: {
      edge: {
        method: 'track-2',
        track: {
          points: Array.from({ length: until }, (_, index): Followed => ({
            time: seconds(lands + index),
            at: [0.2 + index / 100, 0.55],
            tap: 0,
            scale: 1,
            rotation: 0,
          })),
          lost,
        },
      },
    },
  });
  const edgeOn = (given: RevealMoment, of: Material, frame: number) =>
    maskedReveal.outline(given, of, ruler, frame)?.rings[0] ?? [];

  it('asks for that to be followed, from where and when it was drawn', () => {
    const [work] = maskedReveal.works(once, ruler, material());
    expect(work.task()).toMatchObject({
      is: 'track',
      media: 'media-one',
      taps: [
        { time: expect.closeTo(seconds(lands), 6), at: [expect.closeTo(0.2, 6), expect.closeTo(0.55, 6)] },
      ],
      reach: expect.closeTo((0.3 * 54) / 96 / 2, 6),
    });
    expect(
      maskedReveal.works(goes([{ after: 0, ring: square(0.1) }], 'after'), ruler, material())[0].task(),
    ).toMatchObject({
      media: 'media-two',
      taps: [{ time: 2 }],
    });
    for (const still of [
      set({ edge: 'drawn', shape: once.settings.shape }),
      goes(null),
      set({ follows: 'before' }),
    ])
      expect(maskedReveal.works(still, ruler, material())).toEqual([]);
    expect(maskedReveal.works(once, ruler, { ...material(), takes: {} })).toEqual([]);
  });

  it('is carried on the picture, in its outline and in what is handed over', () => {
    const of = found(60);
    expect(edgeOn(once, of, lands + 30)[0][0]).toBeCloseTo(0.4, 6);
    const [, over] = mediaIn(maskedReveal.build(once, ruler, of));
    const { shape } = over.mattes[0];
    if (shape.is !== 'outline') throw new Error('It has no outline.');
    expect(shape.keys[0].rings[0][0][0]).toBeCloseTo(0.1 * 96, 6);
    expect(
      shape.keys.some(
        ({ frame, rings }) => frame === lands + 59 && Math.abs(rings[0][0][0] - 0.69 * 96) < 0.3,
      ),
    ).toBe(true);
    // It goes evenly, and then stays where it was seen last.
    expect(shape.keys.length).toBeLessThan(5);
    expect(maskedReveal.explain(once, ruler, of, maskedReveal.build(once, ruler, of))[1].text).toMatch(
      /goes with what lies under it in the take before the change/,
    );
    expect(codes(once, of)).toContain('fine reveal.carried');
    expect(codes(once, of)).not.toContain('watch reveal.partial');
  });

  it('lies on the picture that shows, and between two where not all of them were looked at', () => {
    const of = found(60);
    const points = (of.solved.edge as { track: { points: Followed[] } }).track.points;
    const every = (step: number) => ({
      ...of,
      solved: {
        edge: {
          method: 'track-2' as const,
          track: { points: points.filter((_, index) => index % step === 0), lost: [] },
        },
      },
    });
    for (const step of [1, 2, 3])
      for (const frame of [lands + 4, lands + 7, lands + 30])
        expect(edgeOn(once, every(step), frame)[0][0]).toBeCloseTo(0.1 + (frame - lands) / 100, 6);
    // A picture is on the screen until the next one comes.
    const late = {
      ...of,
      solved: {
        edge: {
          method: 'track-2' as const,
          track: { points: points.map((one) => ({ ...one, time: one.time + 0.03 })), lost: [] },
        },
      },
    };
    expect(edgeOn(once, late, lands + 7)[0][0]).toBeCloseTo(0.16, 6);
  });

  it('is drawn anew on the frame that is looked at, which makes a tap of it', () => {
    const at = lands + 30;
    const ring = maskedReveal.outline(once, found(60), ruler, at)?.drawn?.(square(0.5));
    const mended = set({
      edge: 'drawn',
      follows: 'before',
      shape: ring as RevealMoment['settings']['shape'],
    });
    const task = maskedReveal.works(mended, ruler, material())[0].task();
    expect(task).toMatchObject({
      taps: [{}, { time: expect.closeTo(seconds(at), 6), at: [expect.closeTo(0.6, 6), 0.55] }],
    });
  });

  it('says where it is lost, that nobody drew it, and nothing while nobody looked', () => {
    expect(codes(once, found(20, [seconds(lands + 20)]))).toContain('fix reveal.lost');
    expect(codes(once, found(20, [1]))).not.toContain('fine reveal.carried');
    expect(codes(once, found(1))).toContain('fix reveal.lost');
    expect(codes(once, found(0)).filter((code) => /carried|lost/.test(code))).toEqual([]);
    expect(codes(goes(null))).toContain('fix reveal.not-drawn');
    // The first shape that is drawn is the only one then.
    expect(maskedReveal.outline(goes(null), material(), ruler, lands + 5)?.drawn?.(square(0.3))).toEqual([
      { after: 5, ring: square(0.3) },
    ]);
    expect(codes(once).filter((code) => /carried|lost|not-drawn/.test(code))).toEqual([]);
    expect(edgeOn(once, material(), lands + 30)).toEqual(square(0.1));
  });
});
