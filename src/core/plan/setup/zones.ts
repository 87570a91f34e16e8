import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import type { Zone } from '../../model/plan-records';
import type { ZoneCode } from './zone-words';

type Point = readonly [number, number];
type Box = { left: number; right: number; top: number; bottom: number };

/** A zone by its edges, in shares of the picture, whichever corners it was drawn from. */
export const boxOf = ({ from, to }: Pick<Zone, 'from' | 'to'>): Box => ({
  left: Math.min(from[0], to[0]),
  right: Math.max(from[0], to[0]),
  top: Math.min(from[1], to[1]),
  bottom: Math.max(from[1], to[1]),
});

const area = (box: Box) => Math.max(0, box.right - box.left) * Math.max(0, box.bottom - box.top);
const common = (a: Box, b: Box): Box => ({
  left: Math.max(a.left, b.left),
  right: Math.min(a.right, b.right),
  top: Math.max(a.top, b.top),
  bottom: Math.min(a.bottom, b.bottom),
});

/** Share of the smaller box that both cover. */
export const overlapOf = (a: Box, b: Box): number =>
  area(common(a, b)) / Math.max(1e-9, Math.min(area(a), area(b)));

const sideOf = ([x0, y0]: Point, [x1, y1]: Point, [x, y]: Point) =>
  (x1 - x0) * (y - y0) - (y1 - y0) * (x - x0);

/** True where a line from one point to another runs through a box. @see Liang & Barsky 1984 */
export function crosses(from: Point, to: Point, box: Box): boolean {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  let [enter, leave] = [0, 1];
  for (const [step, room] of [
    [-dx, from[0] - box.left],
    [dx, box.right - from[0]],
    [-dy, from[1] - box.top],
    [dy, box.bottom - from[1]],
  ]) {
    if (step === 0 && room < 0) return false;
    if (step < 0) enter = Math.max(enter, room / step);
    if (step > 0) leave = Math.min(leave, room / step);
  }
  return enter < leave;
}

/** How far a box reaches over a line onto the side where less of it lies, as a share of its width. */
export function reachOver(from: Point, to: Point, box: Box): number {
  if (!crosses(from, to, box)) return 0;
  let less = 0;
  const steps = 40;
  for (let y = 0; y < steps; y++)
    for (let x = 0; x < steps; x++) {
      const at: Point = [
        box.left + ((x + 0.5) / steps) * (box.right - box.left),
        box.top + ((y + 0.5) / steps) * (box.bottom - box.top),
      ];
      if (sideOf(from, to, at) > 0) less++;
    }
  const share = less / steps ** 2;
  return Math.min(share, 1 - share);
}

/** What of a zone the shadow falls on, when everything in it throws one along an arrow: the box moved by it. */
const shadowOf = (box: Box, { from, to }: Zone): Box => {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  return {
    left: Math.min(box.left, box.left + dx),
    right: Math.max(box.right, box.right + dx),
    top: Math.min(box.bottom, box.bottom + dy) - 0.02,
    bottom: Math.max(box.bottom, box.bottom + dy) + 0.02,
  };
};

// A twentieth of a zone on the wrong side is a hand that reaches over. Common practice, no published source.
/** What is wrong with the zones of one setup. */
export function examineZones(setup: string, zones: readonly Zone[]): Finding<ZoneCode>[] {
  const of = (what: Zone['what']) => zones.filter((zone) => zone.what === what);
  const [copies, seams, movers, shadows] = [of('copy'), of('seam'), of('moves'), of('shadow')];
  const findings: Finding<ZoneCode>[] = [];
  const add = (
    code: ZoneCode,
    severity: Finding['severity'],
    share: number | null,
    facts: Record<string, string>,
  ) =>
    findings.push({
      code,
      severity,
      where: { setup },
      facts,
      ...(share === null
        ? {}
        : {
            measured: { value: share, unit: 'share' as const },
            allowed: { value: allowed.overlap, unit: 'share' as const },
          }),
    });
  copies.forEach((copy, index) => {
    const box = boxOf(copy);
    for (const other of copies.slice(index + 1)) {
      const share = overlapOf(box, boxOf(other));
      if (share > allowed.overlap) add('zone.overlap', 'fix', share, { one: copy.name, other: other.name });
    }
    for (const seam of seams) {
      const share = reachOver(seam.from, seam.to, box);
      if (share > allowed.overlap) add('zone.reach', 'fix', share, { one: copy.name, other: seam.name });
    }
    for (const shadow of shadows) {
      const falls = shadowOf(box, shadow);
      for (const seam of seams)
        if (crosses(seam.from, seam.to, falls) && reachOver(seam.from, seam.to, box) <= allowed.overlap)
          add('zone.shadow', 'fix', null, { one: copy.name, other: seam.name });
    }
  });
  for (const mover of movers)
    for (const seam of seams)
      if (crosses(seam.from, seam.to, boxOf(mover)))
        add('zone.moving', 'fix', null, { one: mover.name, other: seam.name });
  if (copies.length >= 2 && seams.length === 0) add('zone.no-seam', 'watch', null, {});
  if (copies.length >= 2 && findings.length === 0) add('zone.clear', 'fine', null, {});
  return findings;
}
