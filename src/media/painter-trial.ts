import type { Point, Size } from '@/core/geometry/size';
import { linear } from '@/core/motion/easing';
import { still, type Track } from '@/core/motion/keyframes';
import { groupOf, nodeOf, outlineMatte, type Node } from '@/core/picture/node';
import type { PainterTrial } from '@/core/picture/painters';
import { blankYuv, type YuvImage } from '@/core/picture/planes';
import { seeded } from '@/core/random';
import { Card } from './gpu/card';
import { ShotPainter } from './shot-painter';

const stage: Size = { width: 640, height: 360 };
const whole: Size = { width: 1920, height: 1080 };
/** pictures that are painted by each; the first one opens what has to be opened, and is not counted */
const pictures = 3;
/** milliseconds after which the first one counts, and no other is waited for */
const longEnough = 400;
/** a card that takes so many times as long at the size of the stage is not tried at full size */
const hopeless = 4;

function noisePicture(size: Size, seed: number): YuvImage {
  const next = seeded(seed);
  const picture = blankYuv(size);
  for (const plane of [picture.y, picture.u, picture.v])
    for (let at = 0; at < plane.length; at++) plane[at] = 60 + 120 * next();
  return picture;
}

/** Two layers, one moved and inside a soft mask. @param more what makes it more than planes can hold */
function sceneOf(size: Size, more: Partial<Node>): Node {
  const span = { from: 0, until: 100 };
  const x: Track = [
    { frame: 0, value: 0, ease: linear },
    { frame: 99, value: size.width / 10, ease: 'hold' },
  ];
  const ring = [0, 1, 2, 3, 4, 5].map((corner): Point => [
    size.width * (0.5 + 0.3 * Math.cos(corner)),
    size.height * (0.5 + 0.3 * Math.sin(corner)),
  ]);
  const layer = (media: string, rest: Partial<Node>) =>
    nodeOf({
      id: media,
      name: media,
      ...span,
      content: { is: 'media', media, size, time: still(0) },
      ...rest,
    });
  const move = {
    is: 'move' as const,
    size,
    x,
    y: still(0),
    rotation: still(1),
    scale: still(1.1),
    undone: false,
  };
  const mattes = [outlineMatte('parent', [{ frame: 0, rings: [ring] }], size.width / 40)];
  return groupOf('trial', size, span, [
    layer('one', {}),
    layer('two', { transforms: [move], mattes, ...more }),
  ]);
}

/** Milliseconds a picture of a scene; the quickest of a few, so that what else the device does counts less. */
async function timeOf(paint: (frame: number) => Promise<unknown>): Promise<number> {
  const measured = async (frame: number) => {
    const begun = performance.now();
    await paint(frame);
    return performance.now() - begun;
  };
  const first = await measured(0);
  if (first > longEnough) return first;
  let best = Infinity;
  for (let frame = 1; frame < pictures; frame++) best = Math.min(best, await measured(frame));
  return best;
}

/** How fast each painter is at a scene. @param tryCard false where only the processor is of interest */
async function compare(size: Size, more: Partial<Node>, tryCard: boolean): Promise<PainterTrial['stage']> {
  const shown = { one: noisePicture(size, 1), two: noisePicture(size, 2) };
  const pictureOf = (media: string) => shown[media as keyof typeof shown] ?? null;
  const footage = { at: async (media: string) => pictureOf(media), release: () => undefined };
  const tree = sceneOf(size, more);
  const painter = new ShotPainter(footage, size);
  const processor = await timeOf((frame) => painter.paint(tree, frame));
  const card = new Card(size);
  if (!tryCard || !card.name) return { processor, card: null };
  let there = true;
  const time = await timeOf(async (frame) => {
    there &&= card.paint(tree, frame, pictureOf) !== null;
  });
  card.close();
  return { processor, card: there ? time : null };
}

/** Lets the painters of this device paint the same pictures, once. */
export async function tryPainters(): Promise<PainterTrial> {
  const card = new Card(stage);
  const { name } = card;
  card.close();
  const small = await compare(stage, {}, name !== null);
  const isHopeless = small.card === null || small.card > hopeless * small.processor;
  const rest = { blend: 'screen' as const, effects: [{ is: 'blur' as const, radius: still(3) }] };
  return {
    version: 1,
    name,
    stage: small,
    whole: await compare(whole, {}, !isHopeless),
    rest: await compare({ width: stage.width / 2, height: stage.height / 2 }, rest, name !== null),
  };
}
