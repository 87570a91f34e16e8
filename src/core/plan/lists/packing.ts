import type { PlanInput } from '../plan';
import { planMoments, planShots } from '../shots';

/** Something to take along; `key` stays the same while the plan is edited. */
export type PackItem = {
  key: string;
  group: 'Kit' | 'Clothes' | 'Props' | 'Tape and paper' | 'Own';
  text: string;
  for: string[];
};

/** Everything the plan asks for, each once, with the moments that need it. */
export function packingOf(input: PlanInput, own: readonly { id: string; text: string }[]): PackItem[] {
  const items = new Map<string, PackItem>();
  const add = (group: PackItem['group'], text: string, reason: string) => {
    const key = `${group}/${text}`;
    const item = items.get(key) ?? { key, group, text, for: [] };
    if (reason && !item.for.includes(reason)) item.for.push(reason);
    items.set(key, item);
  };
  const planned = planMoments(input);
  if (planned.length > 0 || input.passes.length > 0) {
    add('Kit', 'camera, charged, and its lens', '');
    add('Kit', 'spare battery and empty card', '');
    add('Kit', 'loudspeaker for playback', '');
    add('Tape and paper', 'tape measure', '');
    add('Tape and paper', 'something to write on', '');
  }
  for (const { moment, filming } of planned) {
    filming.kit.forEach((text) => add(/tape/.test(text) ? 'Tape and paper' : 'Kit', text, moment.name));
    filming.props.forEach((text) => add(/clothes/.test(text) ? 'Clothes' : 'Props', text, moment.name));
  }
  const shots = planShots(input);
  if (shots.some((shot) => shot.what === 'sound')) add('Kit', 'second sound recorder', 'wild sounds');
  for (const shot of shots)
    if (shot.dressing) add('Tape and paper', 'floor marks for what leaves and returns', shot.title);
  if (shots.some((shot) => shot.clothes)) add('Clothes', 'every set of clothes, clean and pressed', '');
  for (const item of own) items.set(item.id, { key: item.id, group: 'Own', text: item.text, for: [] });
  return [...items.values()];
}
