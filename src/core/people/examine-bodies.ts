import { allowed } from '../finding/allowed';
import type { Finding, Place } from '../finding/finding';
import { bodyGap, type Body, type BodyGap } from './bodies';
import type { BodyCode } from './body-words';

/** Somebody in a take, as they stand in the middle of the looks at it; null where nobody was found in any. */
export type Stander = { take: string; name: string; body: Body | null };

/** What of a gap is more than is allowed; nothing where it may be so. @param size share by which one may be larger */
function tooFar({ higher, larger }: BodyGap, size: number): Record<string, number> {
  return {
    ...(Math.abs(higher) > allowed.foundEyes ? { off: Math.abs(higher), higher } : {}),
    ...(Math.abs(larger - 1) > size ? { larger } : {}),
  };
}
const isLevel = (far: Record<string, number>): boolean => Object.keys(far).length === 0;

/** The gap as a finding's numbers: that of the eyes, which is what is looked at first. */
const judged = ({ higher }: BodyGap) => ({
  measured: { value: Math.abs(higher), unit: 'metres' as const },
  allowed: { value: allowed.foundEyes, unit: 'metres' as const },
});

/**
 * Whether two who are to meet have their eyes at one height and are of one size, as somebody twice in one place would.
 * @param stature metres that the second is tall
 * @param where what the findings are about
 */
export function examineMeeting(
  one: Stander,
  other: Stander,
  stature: number,
  where: Place,
): Finding<BodyCode>[] {
  const unseen = [one, other].find(({ body }) => !body);
  if (!one.body || !other.body)
    return unseen
      ? [{ code: 'people.unseen', severity: 'watch', where: { ...where, take: unseen.take } }]
      : [];
  const gap = bodyGap(one.body, other.body, stature);
  const far = tooFar(gap, allowed.foundSize);
  return [
    {
      code: isLevel(far) ? 'people.level' : 'people.apart',
      severity: isLevel(far) ? 'fine' : 'watch',
      where: { ...where, take: one.take },
      ...judged(gap),
      facts: { ...far, other: other.name },
    },
  ];
}

/** A place that was planned: what it is called, and who would stand there in shares of the frame. */
export type Planned = { name: string; stature: number; body: Body };

/** share of the width within which somebody stands at a mark: further off, another place was meant */
const nearMark = 0.15;

/** Whether somebody stands as the nearest mark has it: eyes at its height, as large as there. */
export function examineAtMark({ take, body }: Stander, marks: readonly Planned[]): Finding<BodyCode>[] {
  if (!body) return [];
  const away = (mark: Planned) => Math.abs(mark.body.across - body.across);
  const near = marks.filter((mark) => away(mark) <= nearMark).sort((a, b) => away(a) - away(b));
  if (near.length === 0) return [];
  const [mark] = near;
  const gap = bodyGap(body, mark.body, mark.stature);
  const far = tooFar(gap, allowed.markedSize);
  return [
    {
      code: isLevel(far) ? 'people.on-mark' : 'people.off-mark',
      severity: isLevel(far) ? 'fine' : 'watch',
      where: { take },
      ...judged(gap),
      facts: { ...far, mark: mark.name },
    },
  ];
}
