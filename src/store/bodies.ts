import { usualStature } from '@/core/model/plan-records';
import type { Take } from '@/core/model/records';
import { usualBody } from '@/core/people/bodies';
import { examineAtMark, examineMeeting, type Planned, type Stander } from '@/core/people/examine-bodies';
import type { BodyCode } from '@/core/people/body-words';
import type { Finding } from '@/core/finding/finding';
import { placeMark } from '@/core/plan/setup/numbers';
import { filmedIn } from './plates';
import { bodiesIn, type Snapshot } from './snapshot';

/** Who stands in a take; null where nobody was looked for yet. */
function standerIn(snapshot: Snapshot, take: Take): Stander | null {
  const bodies = bodiesIn(snapshot, take);
  return bodies && { take: take.id, name: take.name, body: usualBody(bodies) };
}

/** The setup that a take was filmed in, as far as that is known. */
const setupOf = (snapshot: Snapshot, take: Take) => {
  const own = filmedIn(snapshot, take);
  if (own === null) return snapshot.setups.length === 1 ? snapshot.setups[0] : null;
  return snapshot.setups.find(({ id }) => id === own) ?? null;
};

/** Whether those who stand in two takes have their eyes at one height; nothing where they were not looked for. */
export function meetingOf(snapshot: Snapshot, first: Take, second: Take): Finding<BodyCode>[] {
  const [one, other] = [first, second].map((take) => standerIn(snapshot, take));
  if (!one || !other) return [];
  const setup = setupOf(snapshot, second);
  const stature = snapshot.marks.find((mark) => mark.setup === setup?.id)?.stature ?? usualStature;
  return examineMeeting(one, other, stature, {});
}

/** Whether whoever stands in a take stands as a mark of its setup has it; nothing where nobody was looked for. */
export function atMarkOf(snapshot: Snapshot, take: Take): Finding<BodyCode>[] {
  const [stander, setup] = [standerIn(snapshot, take), setupOf(snapshot, take)];
  if (!stander || !setup) return [];
  const own = snapshot.marks.filter((mark) => mark.setup === setup.id);
  const marks = own.flatMap((mark): Planned[] => {
    const { eyes, feet, top } = placeMark(setup, mark);
    if (!eyes || !feet || !top) return [];
    const body = { across: eyes.x, eyes: eyes.y, stature: feet.y - top.y };
    return [{ name: mark.name, stature: mark.stature, body }];
  });
  return examineAtMark(stander, marks);
}
