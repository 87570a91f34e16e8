import type { SeamSide } from '../../footage/seam-task';
import { type CloneMoment, cloneMaterial, seamWork, sides, type Side } from './material';
import { fillOf, plateSlot, tapsOf } from '../../model/slots';
import { frameOfTime } from '../../time/rate';
import type { ChosenTake, Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { mediaIn, secondsAt } from '../../picture/node';
import { buildClone, cloneAnchors, cloneFrames } from './build';

/** A take with light and movement put right, whatever the person set. */
const corrected = (chosen: ChosenTake | null): ChosenTake | null =>
  chosen && { ...chosen, take: { ...chosen.take, steady: true, match: true } };

/** The seam of a clone, once both takes are measured and held against the plate. */
export function cloneWorks(moment: CloneMoment, ruler: Ruler, material: Material): Work[] {
  const { plate, left, right } = cloneMaterial(material);
  if (!left || !right || [plate, left, right].some((chosen) => chosen && !chosen.measure)) return [];
  if (plate && [left, right].some(({ take, comparison }) => take.id !== plate.take.id && !comparison))
    return [];
  const { project } = ruler;
  const { settings } = moment;
  const fills = sides.map((side) => fillOf(moment, side));
  const parts = [
    [plate, left, right].map(
      (chosen) => chosen && [chosen.take.media, chosen.take.matrix, chosen.take.steady, chosen.take.match],
    ),
    cloneAnchors(moment, ruler).map((anchor) => anchor.frame),
    [project.rate, project.width, project.height],
    [settings.first, fills, settings.seam],
  ];
  const task: Work['task'] = () => {
    const nodes = mediaIn(buildClone(moment, ruler, material));
    const takes = { ...material.takes, left: corrected(left), right: corrected(right) };
    const put = mediaIn(buildClone(moment, ruler, { ...material, takes }));
    const frames = cloneFrames(moment, ruler);
    const side = (role: Side, { take }: ChosenTake): SeamSide => {
      const [node, better] = [nodes, put].map((all) => all.filter((one) => one.id === role)[0]);
      const begins = secondsAt(node, node.from);
      return {
        node,
        corrected: take.steady && take.match ? node : better,
        taps: tapsOf(fillOf(moment, role)).map(({ time, at }) => ({
          frame: node.from + frameOfTime(project.rate, time - begins),
          at,
        })),
      };
    };
    return {
      is: 'seam',
      sides: [side('left', left), side('right', right)],
      plate: nodes.find(({ id }) => id === plateSlot) ?? null,
      from: frames.lands,
      until: frames.end,
      delivery: { width: project.width, height: project.height },
      outline: settings.seam,
    };
  };
  return [{ name: seamWork, title: 'the join', is: 'seam', parts, task }];
}
