import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { sayFinding } from '../../finding/say';
import type { Point } from '../../geometry/size';
import type { SeamMeasure, SideShadow } from '../../model/measures';
import { keyframeCsv } from '../../formats/keyframe-sheet';
import { writeOtio } from '../../formats/otio';
import type { Take } from '../../model/records';
import type { CloneMoment, CloneMaterial } from './material';
import { describeFrame } from '../../picture/draw-list';
import { mediaIn, type Node } from '../../picture/node';
import { regularGrid } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { formatTimecode } from '../../time/timecode';
import { clone } from '.';
import { cloneFrames } from './build';
import { base, heldTake, projectOf } from '../__tests__/chosen';
import type { ChosenTake, Material } from '../material';

const size = { width: 1280, height: 720 };
const rate = { num: 24000, den: 1001 };
const project = projectOf(size, rate);
const ruler = { grid: regularGrid(104.3, 0.36, 60), project };
const moment: CloneMoment = {
  ...base,
  id: 'm',
  kind: 'moment',
  recipe: 'clone',
  name: 'Meets a copy',
  start: 32,
  lands: 36,
  end: 44,
  settings: {
    first: 'left',
    fade: 0,
    feather: 12,
    seam: null,
  },
  slots: { plate: { take: 'plate' }, left: { take: 'left', at: 0.5 }, right: { take: 'right', at: 1.25 } },
};

const chosen = (id: string, set: Partial<Take> = {}, shift = 0): ChosenTake =>
  heldTake(id, size, rate, 240, set, (index) => (index >= 60 ? shift : 0));
const material = ({ seam = null, ...takes }: Partial<CloneMaterial> = {}): Material => ({
  takes: { plate: chosen('plate'), left: chosen('left'), right: chosen('right'), ...takes },
  solved: { seam: seam && { method: 'seam-7', seam } },
});
const dyes = new Set(['cochineal', 'woad']);
const shown = (tree: Node, frame: number) => describeFrame(tree, frame)?.[0] ?? [];
const codes = (given: CloneMoment, m: Material) =>
  clone.examine(given, ruler, m).map((one) => `${one.severity} ${one.code}`);

describe('the clone', () => {
  const frames = cloneFrames(moment, ruler);

  it('puts the copy on the frame that its beat rounds to', () => {
    const tree = clone.build(moment, ruler, material());
    expect(shown(tree, frames.lands - 1).map((item) => item.node)).toEqual(['plate', 'left']);
    const on = shown(tree, frames.lands);
    expect(on.map((item) => item.node)).toEqual(['plate', 'left', 'right']);
    expect(on[2].time).toBe(1.25);
    expect(on[1].time).toBeCloseTo(0.5 + ((frames.lands - frames.start) * 1001) / 24000, 9);
    // 36 beats of 104.3 a minute after 0.36 s (arithmetic).
    expect(frames.lands).toBe(Math.round(((0.36 + (36 * 60) / 104.3) * 24000) / 1001));
  });

  it('lets the copy be the left one, and fades it in from nothing', () => {
    const turned = { ...moment, settings: { ...moment.settings, first: 'right' as const, fade: 6 } };
    const tree = clone.build(turned, ruler, material());
    expect(mediaIn(tree).map(({ id }) => id)).toEqual(['plate', 'right', 'left']);
    const amount = (frame: number) => shown(tree, frame).find((item) => item.node === 'left')?.opacity ?? 0;
    expect(amount(frames.lands - 1)).toBe(0);
    expect(amount(frames.lands)).toBeGreaterThan(0);
    expect(amount(frames.lands + 2)).toBeCloseTo(0.5, 6);
    expect(amount(frames.lands + 5)).toBe(1);
    // What is drawn is where the right take shows; the left one shows outside it.
    expect(mediaIn(tree)[2].mattes[0].inverted).toBe(true);
  });

  it('steadies a bumped take where it was bumped', () => {
    const tree = clone.build(moment, ruler, material({ left: chosen('left', { steady: true }, 3) }));
    const shift = (frame: number) => shown(tree, frame)[1].matrix[4];
    expect(shift(frames.start)).toBeCloseTo(0, 6);
    expect(shift(frames.start + 49)).toBeCloseTo(-3, 6);
  });

  it('says what is missing, too short or never lands', () => {
    expect(codes(moment, material())).toEqual(['fine clone.lands']);
    expect(codes(moment, material({ right: null, plate: null }))).toEqual(
      expect.arrayContaining(['stop clone.missing', 'fix clone.missing']),
    );
    expect(codes({ ...moment, lands: 44 }, material())).toContain('stop clone.never-lands');
    expect(codes({ ...moment, end: 60 }, material())).toContain('stop clone.short');
    expect(codes(moment, material({ right: chosen('left') }))).toContain('stop clone.same-take');
  });

  const solved = (more: Partial<SeamMeasure> = {}): SeamMeasure => ({
    rings: [],
    shares: [0.4, 0.6],
    visible: [{ frame: 510, difference: 0.4 }],
    moves: [],
    contact: null,
    crossing: [],
    found: [true, true],
    losses: [],
    borders: [null, null],
    shadows: [null, null],
    ...more,
  });

  it('judges the join and those who cross it', () => {
    const seam = solved({
      visible: [{ frame: 510, difference: 8 }],
      crossing: [512, 514],
      found: [true, false],
    });
    expect(codes(moment, material({ seam }))).toEqual(
      expect.arrayContaining(['fix clone.join-shows', 'fix clone.crossing', 'watch clone.no-performer']),
    );
    expect(codes(moment, material({ seam: solved() }))).toEqual([
      'fine clone.lands',
      'fine clone.join-hidden',
    ]);
  });

  it('says what becomes of shadows, and asks for the join anew where they are hidden', () => {
    const lost = (...shares: number[]) => shares.map((share, index) => ({ frame: 510 + index, share }));
    const thrown = (edge: number, ...shares: number[]): SideShadow => ({
      edge,
      covers: 0.06,
      falls: 'left',
      lost: lost(...shares),
    });
    const hidden = { ...moment, settings: { ...moment.settings, shadows: 'hidden' as const } };
    const said = (given: CloneMoment, shadows: SeamMeasure['shadows']) =>
      codes(given, material({ seam: solved({ shadows }) })).filter((code) => code.includes('shadow'));
    expect(said(moment, [thrown(0.004, 0.05, 0), null])).toEqual(['fine clone.shadow-kept']);
    // What is sharp is seen where it ends; what fades out is so less.
    expect(said(moment, [thrown(0.004, 0, 0.3), thrown(0.05, 0.3)])).toEqual([
      'fix clone.shadow-cut',
      'watch clone.shadow-cut',
    ]);
    expect(said(hidden, [null, thrown(0.05, 0.95, 1)])).toEqual(['fine clone.shadow-hidden']);
    expect(said(hidden, [thrown(0.004, 0.4, 1), null])).toEqual(['fix clone.shadow-left']);
    const [work] = clone.works(moment, ruler, material());
    const [other] = clone.works(hidden, ruler, material());
    expect(work.task()).toMatchObject({ shadows: 'kept' });
    expect(other.task()).toMatchObject({ shadows: 'hidden' });
    expect(other.parts).not.toEqual(work.parts);
    // The word is in the sentence where there is a shadow, or where one was hidden.
    const asks = (given: CloneMoment, shadows: SeamMeasure['shadows']) =>
      clone
        .say(given, ruler, material({ seam: solved({ shadows }) }))
        .some((part) => typeof part !== 'string' && 'field' in part && part.field === 'shadows');
    expect(asks(moment, [null, null])).toBe(false);
    expect(asks(moment, [null, thrown(0.05, 0)])).toBe(true);
    expect(asks(hidden, [null, null])).toBe(true);
  });

  it('moves where it was solved to, says so, and stays where it was drawn', () => {
    const half = (left: number): Point[] => [
      [left, 0],
      [1, 0],
      [1, 1],
      [left, 1],
    ];
    const { lands, end } = cloneFrames(moment, ruler);
    const seam = solved({
      rings: [half(0.5)],
      moves: [
        { frame: lands + 4, rings: [half(0.7)] },
        { frame: lands + 9, rings: [half(0.5)] },
        { frame: end + 3, rings: [half(0.2)] },
      ],
    });
    const given = material({ seam });
    const keysIn = (some: CloneMoment) => {
      const copy = mediaIn(clone.build(some, ruler, given)).findLast(({ mattes }) => mattes.length > 0);
      const shape = copy?.mattes[0].shape;
      return shape?.is === 'outline'
        ? shape.keys.map(({ frame, rings }) => [frame, rings[0][0][0] / width])
        : [];
    };
    const { width } = ruler.project;
    expect(keysIn(moment)).toEqual([
      [lands, 0.5],
      [lands + 4, 0.7],
      [lands + 9, 0.5],
    ]);
    expect(codes(moment, given)).toContain('fine clone.moves');
    const left = (frame: number) => clone.outline(moment, given, ruler, frame)?.rings[0][0][0];
    expect([lands, lands + 5, lands + 9].map(left)).toEqual([0.5, 0.7, 0.5]);
    const drawn = { ...moment, settings: { ...moment.settings, seam: half(0.4) } };
    expect(keysIn(drawn)).toEqual([[lands, 0.4]]);
    expect(codes(drawn, given)).not.toContain('fine clone.moves');
  });

  it('says whether those who are to touch do, and where they come nearest', () => {
    const touching = { ...moment, settings: { ...moment.settings, way: 'contact' as const } };
    const said = (apart: number, some = touching) => {
      const contact = { frame: 520, apart, at: [0.5, 0.4] as Point };
      return codes(some, material({ seam: solved({ contact }) })).filter((code) =>
        /contact|apart/.test(code),
      );
    };
    expect(said(0)).toEqual(['fine clone.contact']);
    expect(said(0.02)).toEqual(['watch clone.apart']);
    expect(said(0.02, moment as typeof touching)).toEqual([]);
    expect(codes(touching, material({ seam: solved() })).some((code) => /contact|apart/.test(code))).toBe(
      false,
    );
  });

  it('says whether the eyes of those who are to touch are level as they do, once they were looked for', () => {
    const touching = { ...moment, settings: { ...moment.settings, way: 'contact' as const } };
    const { start, lands } = cloneFrames(moment, ruler);
    const since = (from: number, frame: number) => timeOfFrame(rate, frame - from);
    const frame = lands + 12;
    const contact = { frame, apart: 0, at: [0.5, 0.4] as Point };
    // Each bends down at some other time, and stands upright where they touch.
    const looks = (touch: number, eyes: number) => ({
      ratio: 16 / 9,
      looks: [-2, -0.3, 0.3, 2].map((off) => ({
        time: touch + off,
        bodies: [{ across: 0.4, eyes: Math.abs(off) < 1 ? eyes : 0.6, stature: 0.5 }],
      })),
    });
    const eyes = (left: number | null, right: number, some = touching) => {
      const [one, other] = [chosen('left'), chosen('right')];
      const bodies = left === null ? undefined : looks(0.5 + since(start, frame), left);
      return codes(
        some,
        material({
          seam: solved({ contact }),
          left: { ...one, bodies },
          right: { ...other, bodies: looks(1.25 + since(lands, frame), right) },
        }),
      ).filter((code) => /people/.test(code));
    };
    expect(eyes(0.3, 0.3)).toEqual(['fine people.level']);
    expect(eyes(0.3, 0.33)).toEqual(['watch people.apart']);
    expect(eyes(null, 0.33)).toEqual([]);
    expect(eyes(0.3, 0.33, moment as typeof touching)).toEqual([]);
  });

  it('calls no join good that leaves a side nothing, or loses or cuts who is kept', () => {
    const given = (more: Partial<SeamMeasure>) => codes(moment, material({ seam: solved(more) }));
    const alone = given({ shares: [0.001, 0.999], visible: [{ frame: 510, difference: 0 }] });
    expect(alone).toContain('stop clone.one-sided');
    expect(alone).not.toContain('fine clone.join-hidden');
    const loss = {
      side: 1 as const,
      kept: true,
      whole: false,
      share: 0.4,
      frames: { count: 14, first: 512, last: 530 },
      at: [0.63, 0.5] as [number, number],
    };
    expect(given({ losses: [loss] })).toContain('stop clone.cuts');
    expect(given({ losses: [{ ...loss, whole: true }] })).toContain('stop clone.loses');
    expect(given({ losses: [{ ...loss, kept: false }] })).toContain('fix clone.cuts-other');
    expect(given({ losses: [{ ...loss, kept: false, whole: true }] })).toContain('watch clone.leaves-out');
    expect(given({ borders: [7, null] })).toContain('fix clone.border');
    expect(given({ borders: [1, null] })).toEqual(['fine clone.lands', 'fine clone.join-hidden']);
    const [said] = clone.examine(moment, ruler, material({ seam: solved({ losses: [loss] }) })).slice(1);
    expect(sayFinding(said, { takes: {}, grid: null }).text).toBe(
      'The join cuts whom you keep in the right take, at 63 % across, in 14 frames (512 to 530): up to 40 % of them does not show. Choose another pair, start it elsewhere, or move the join.',
    );
  });

  it('shows the plate, not the other take, where steadying takes the copy off an edge', () => {
    const steadied = clone.build(moment, ruler, material({ right: chosen('right', { steady: true }, 3) }));
    expect(shown(steadied, frames.lands).map((item) => item.node)).toEqual([
      'plate',
      'left',
      'plate-under-right',
      'right',
    ]);
    const [, , under, copy] = mediaIn(steadied);
    expect(under.mattes).toEqual(copy.mattes);
  });

  it('keeps holes and islands of a solved seam', () => {
    const square = (from: number, to: number): [number, number][] => [
      [from, from],
      [to, from],
      [to, to],
      [from, to],
    ];
    const seam = solved({ rings: [square(0.4, 1), square(0.6, 0.8), square(0.1, 0.2)] });
    const tree = clone.build(moment, ruler, material({ seam }));
    const [matte] = mediaIn(tree)[2].mattes;
    expect(matte.shape.is === 'outline' && matte.shape.keys[0].rings).toHaveLength(3);
  });

  it('says itself in a sentence with every quantity', () => {
    const fields = clone.say(moment, ruler, material()).flatMap((part) =>
      typeof part === 'string'
        ? []
        : [
            Object.values(part)
              .filter((value) => !dyes.has(String(value)))
              .join(' '),
          ],
    );
    expect(fields).toEqual([
      'way',
      'start',
      'first',
      'left take',
      'left start',
      'lands',
      'fade',
      'right take',
      'right start',
      'end',
      'plate take',
      'feather',
      'copies 2',
    ]);
  });
});

describe('numbers for any editor', () => {
  const graded = chosen('right', { match: true });
  const colour = {
    slope: [1, 1.1, 1] as [number, number, number],
    offset: [0, 0, 0] as [number, number, number],
    power: [1, 1, 1] as [number, number, number],
    saturation: 0.9,
    stops: 0.1,
    drift: 0,
    light: [],
    before: 3,
    after: 1,
  };
  const given = material({
    left: chosen('left', { steady: true }, 3),
    right: { ...graded, comparison: graded.comparison && { ...graded.comparison, colour } },
  });
  const tree = clone.build(moment, ruler, given);
  const steps = clone.explain(moment, ruler, given, tree);
  const frames = cloneFrames(moment, ruler);

  it('writes every keyframe in frames, seconds, timecode, pixels and per cent', () => {
    const { data, errors } = Papa.parse<Record<string, string>>(keyframeCsv(steps, rate, frames.start), {
      header: true,
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    for (const row of data) expect(Number(row['frame in the shot'])).toBeGreaterThanOrEqual(0);
    const begins = data.find((row) => row.layer === 'Right: right' && row.what === 'begins to show');
    expect(begins?.['frame in the shot']).toBe(String(frames.lands - frames.start));
    expect(begins?.['timecode in the film']).toBe(formatTimecode(frames.lands, rate));
    const moves = data.filter((row) => row.what === 'move sideways').map((row) => row.value);
    expect(moves[0]).toMatch(/^-?0\.000 px$/);
    expect(moves.at(-1)).toBe('-3.000 px');
    // Where each take begins in its file, how soft the mask is, and what was done to colour.
    const of = (layer: string, what: string) =>
      data.filter((row) => row.layer === layer && row.what === what).map((row) => row.value);
    expect(of('Left: left', 'second of its file')[0]).toBe('0.5000 s');
    expect(of('Right: right', 'second of its file')[0]).toBe('1.2500 s');
    expect(of('Right: right', 'mask feather, both sides together')).toEqual(['12.000 px']);
    expect(of('Right: right', 'colour slope, green')).toEqual(['1.1000']);
    expect(of('Right: right', 'colour saturation')).toEqual(['0.9000']);
    expect(of('Left: left', 'colour saturation')).toEqual([]);
    const corner = data.find((row) => row.what === 'mask point 1, across');
    expect([corner?.value, corner?.['per cent of the frame']]).toEqual(['640.000 px', '50.0000 %']);
  });

  it('writes a timeline whose clips begin and end on the same frames', () => {
    const text = writeOtio({
      name: moment.name,
      rate,
      start: frames.start,
      end: frames.end,
      tree,
      files: Object.fromEntries(
        ['plate', 'left', 'right', 'song'].map((id) => [`media-${id}`, { name: `${id} 1.mp4`, duration: 9 }]),
      ),
      song: { media: 'media-song' },
      markers: [{ name: 'Copy', frame: frames.lands }],
    });
    const { tracks } = JSON.parse(text);
    // OpenTimelineIO serialised schema (ASWF): names and versions of the objects.
    expect(tracks.OTIO_SCHEMA).toBe('Stack.1');
    expect(tracks.children.map((track: { kind: string }) => track.kind)).toEqual([
      'Video',
      'Video',
      'Video',
      'Audio',
    ]);
    for (const track of tracks.children) {
      const length = track.children.reduce(
        (sum: number, item: { source_range: { duration: { value: number } } }) =>
          sum + item.source_range.duration.value,
        0,
      );
      expect(length).toBe(frames.end - frames.start);
    }
    const [gap, copy] = tracks.children[2].children;
    expect(gap.OTIO_SCHEMA).toBe('Gap.1');
    expect(gap.source_range.duration.value).toBe(frames.lands - frames.start);
    expect(copy.media_references.DEFAULT_MEDIA.target_url).toBe('right%201.mp4');
    expect(tracks.children[0].children[0].effects[0].OTIO_SCHEMA).toBe('FreezeFrame.1');
  });
});
