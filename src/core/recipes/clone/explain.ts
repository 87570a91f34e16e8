import type { CloneMoment } from './material';
import type { Track } from '../../motion/keyframes';
import { sourceTime, type Layer } from '../../picture/layers';
import { beatLabel } from '../../time/grid';
import { formatClock, formatTimecode } from '../../time/timecode';
import type { KeyframeRow, Ruler, Step } from '../recipe';
import { cloneFrames } from './build';
import type { Material } from '../material';

const trackRows = (
  layer: string,
  what: string,
  track: Track,
  unit: KeyframeRow['unit'],
  value: (raw: number) => number,
  of?: number,
): KeyframeRow[] =>
  track.map((key, index) => ({
    frame: key.frame,
    layer,
    what,
    value: value(key.value),
    unit,
    of,
    then:
      index === track.length - 1
        ? 'stays'
        : key.ease === 'hold'
          ? 'holds'
          : key.ease[0] === 0
            ? 'moves evenly'
            : 'eases',
  }));

/** A clone in steps and numbers that fit any editor. */
export function explainClone(
  moment: CloneMoment,
  ruler: Ruler,
  _material: Material,
  layers: Layer[],
): Step[] {
  const { width, height, rate } = ruler.project;
  const frames = cloneFrames(moment, ruler);
  const size = { width, height };
  const code = (frame: number) => formatTimecode(frame, rate);
  const steps: Step[] = [];
  for (const layer of layers) {
    const rows: KeyframeRow[] = [
      { frame: layer.from, layer: layer.name, what: 'begins to show', value: null, unit: '', then: 'stays' },
      {
        frame: layer.until,
        layer: layer.name,
        what: 'no longer shows',
        value: null,
        unit: '',
        then: 'stays',
      },
    ];
    if (layer.opacity.length > 1) {
      rows.push(...trackRows(layer.name, 'opacity', layer.opacity, '%', (raw) => raw * 100));
    }
    if (layer.steady) {
      rows.push(
        ...trackRows(
          layer.name,
          'move sideways',
          layer.steady.dx,
          'px',
          (raw) => -raw * layer.fit[0],
          size.width,
        ),
        ...trackRows(
          layer.name,
          'move down',
          layer.steady.dy,
          'px',
          (raw) => -raw * layer.fit[3],
          size.height,
        ),
        ...trackRows(layer.name, 'turn clockwise', layer.steady.rotation, '°', (raw) => -raw),
        ...trackRows(layer.name, 'size', layer.steady.scale, '%', (raw) => 100 / raw),
      );
    }
    const texts = [
      layer.source.hold
        ? `Put one picture of the clean plate at the back, from ${code(layer.from)} until ${code(layer.until)}.`
        : `Lay the take over what is there from ${code(layer.from)} until ${code(layer.until)}. ` +
          `Its picture at ${formatClock(sourceTime(layer, layer.from))} of the file shows first.`,
    ];
    if (layer.id !== 'plate' && layer.from === frames.lands && layer.mask) {
      texts.push(`It first shows on ${beatLabel(ruler.grid, moment.lands)}, frame ${frames.lands}.`);
    }
    if (layer.steady) texts.push('Move it back to where the plate stands with the numbers below.');
    if (layer.grade) {
      const { slope, offset, power, saturation } = layer.grade;
      const three = (values: readonly number[]) => values.map((value) => value.toFixed(4)).join(', ');
      texts.push(
        `Correct its colour (ASC CDL): slope ${three(slope)}; offset ${three(offset)}; power ${three(power)}; saturation ${saturation.toFixed(4)}.`,
      );
    }
    if (layer.mask) {
      const { points } = layer.mask.outline[0];
      texts.push(
        `Cut it out along ${points.length} points and feather the edge by ${layer.mask.feather} px in all, half on each side.`,
      );
      points.forEach(([x, y], index) => {
        const point = { frame: layer.from, layer: layer.name, unit: 'px' as const, then: 'stays' as const };
        rows.push(
          { ...point, what: `mask point ${index + 1}, across`, value: x, of: size.width },
          { ...point, what: `mask point ${index + 1}, down`, value: y, of: size.height },
        );
      });
    }
    steps.push({ title: layer.name, text: texts.join(' '), rows });
  }
  return steps;
}
