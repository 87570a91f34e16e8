import { steadyTracks } from '../../footage/steady';
import { gentle } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { fitFrame, type Layer } from '../../picture/layers';
import type { Point } from '../../geometry/size';
import { type CloneMoment, cloneMaterial, otherSide, seamWork, straightSeam, type Side } from './material';
import { frameOfBeat } from '../../time/grid';
import type { Anchor, Ruler } from '../recipe';
import { fillOf } from '../../model/slots';
import type { ChosenTake, Material } from '../material';

const titles = { start: 'Begins on', lands: 'The copy appears on', end: 'Ends on' };

/** The three instants of a clone, each rounded to its frame from absolute time. */
export function cloneAnchors(moment: CloneMoment, { grid, project }: Ruler): Anchor[] {
  return (['start', 'lands', 'end'] as const).map((name) => ({
    name,
    title: titles[name],
    position: moment[name],
    frame: frameOfBeat(grid, project.rate, moment[name]),
    ...(name === 'lands' ? { marks: 'Copy appears' } : {}),
  }));
}

/** First frame, frame on which the copy appears, and the frame after the last. */
export function cloneFrames(moment: CloneMoment, ruler: Ruler) {
  const [start, lands, end] = cloneAnchors(moment, ruler).map((anchor) => anchor.frame);
  return { start, lands: Math.max(start, lands), end: Math.max(start + 1, end) };
}

/** The outline in force: drawn by hand, else solved, else straight; shares of the frame. */
export function outlineInForce(moment: CloneMoment, { solved }: Material): Point[] {
  const found = solved[seamWork]?.outline ?? [];
  return moment.settings.seam ?? (found.length > 2 ? found : straightSeam);
}

/** The other side of an outline: the frame with the outline cut out, joined along one line. */
export function outside(points: readonly Point[], width: number, height: number): Point[] {
  const frame: Point[] = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
    [0, 0],
  ];
  return [...frame, ...points, points[0]];
}

/**
 * Layers of a clone: the plate at the back, who is there from the start over the whole frame, and the copy
 * inside the seam from its beat on.
 */
export function buildClone(moment: CloneMoment, ruler: Ruler, material: Material): Layer[] {
  const chosen = cloneMaterial(material);
  const { settings } = moment;
  const { rate, width, height } = ruler.project;
  const delivery = { width, height };
  const frames = cloneFrames(moment, ruler);
  const layer = (
    id: string,
    name: string,
    filled: ChosenTake | null,
    from: number,
    at: number,
    rest: Partial<Layer> & { hold?: boolean },
  ): Layer[] => {
    const measure = filled?.measure;
    if (!filled || !measure) return [];
    const { hold = false, ...others } = rest;
    const moved = filled.take.steady && filled.comparison ? filled.comparison.placements : null;
    return [
      {
        id,
        name,
        from,
        until: frames.end,
        source: { media: filled.take.media, size: measure.size, at, rate, hold },
        fit: fitFrame(measure.size, delivery),
        steady: moved ? steadyTracks(moved, measure.times, at, from, frames.end, rate) : null,
        grade: filled.take.match ? (filled.comparison?.colour ?? null) : null,
        mask: null,
        opacity: still(1),
        blend: 'normal',
        ...others,
      },
    ];
  };
  const points = outlineInForce(moment, material).map(([x, y]): Point => [x * width, y * height]);
  const copy = otherSide(settings.first);
  const seam = copy === 'right' ? points : outside(points, width, height);
  const appear: Track =
    settings.fade > 0
      ? [
          { frame: frames.lands - 1, value: 0, ease: gentle },
          { frame: frames.lands - 1 + settings.fade, value: 1, ease: 'hold' },
        ]
      : still(1);
  const name = (side: Side) => `${side === 'left' ? 'Left' : 'Right'}: ${chosen[side]?.take.name ?? ''}`;
  return [
    ...layer('plate', 'Clean plate', chosen.plate, frames.start, 0, { hold: true }),
    ...layer(
      settings.first,
      name(settings.first),
      chosen[settings.first],
      frames.start,
      fillOf(moment, settings.first).at,
      {},
    ),
    ...layer(copy, name(copy), chosen[copy], frames.lands, fillOf(moment, copy).at, {
      mask: { outline: [{ frame: frames.lands, points: seam }], feather: settings.feather },
      opacity: appear,
    }),
  ];
}
