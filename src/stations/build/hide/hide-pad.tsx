'use client';
import { useContext, useEffect, useRef } from 'react';
import { meanStep } from '@/core/footage/picture-times';
import { mapPoint } from '@/core/geometry/affine';
import type { Point, Size } from '@/core/geometry/size';
import { usualReach, veilReaches } from '@/core/model/hidden';
import type { Moment } from '@/core/model/records';
import { headUnder, type Head } from '@/core/people/head';
import { headsInWhole, partRound } from '@/core/people/look-at';
import { tappedHead } from '@/core/people/tapped-head';
import { filePlaceAt } from '@/core/picture/layer-at';
import { matrixAt, mediaIn, secondsAt, showsAt } from '@/core/picture/node';
import { spotsAt } from '@/core/picture/veil';
import { hideSomebody, tapHidden } from '@/store/commands/veils';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { StageCanvas } from '@/ui/stage/loupe';
import type { Frame } from '@/ui/stage/stage';
import type { Showing } from '@/ui/stage/use-painter';
import { openPeople, transferred, type Client } from '@/workers/clients';
import type { PeopleApi } from '@/workers/people.worker';
import { TapPad, type TapMark } from '../tap-pad';
import type { Hiding } from './use-hiding';

/** Reaches of heads, as shares of the picture's width, for which one is looked for after the other. */
const lookedAt = [0.16, 0.06, 0.02];

/** The picture as something to tap on whom to hide: the face under the tap is looked for, and its size with it. */
export function HidePad({
  moment,
  project,
  showing,
  frame,
  hiding,
  pointAt,
  placeOf,
}: {
  moment: Moment;
  project: Size;
  showing: Showing;
  /** where the picture lies on the stage */
  frame: Frame;
  hiding: Hiding;
  /** a point of the stage as a point of the picture, and the way back */
  pointAt: (pointed: Point) => Point;
  placeOf: (at: Point) => Point;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const canvas = useContext(StageCanvas);
  const people = useRef<Client<PeopleApi> | null>(null);
  useEffect(() => {
    // On a phone the picture may be far above what was pressed.
    canvas?.current?.scrollIntoView({ block: 'nearest' });
    return () => {
      people.current?.end();
      people.current = null;
    };
  }, [canvas]);
  const layers = mediaIn(showing.tree);
  const now = showing.frame;

  const placeAt = (pointed: Point) => {
    const [x, y] = pointAt(pointed);
    return filePlaceAt(layers, now, [x * project.width, y * project.height]);
  };
  const headAt = async (pointed: Point): Promise<Head | null> => {
    const shown = canvas?.current;
    if (!shown) return null;
    people.current ??= openPeople();
    // Whoever is small in the picture is found in a part of it.
    for (const reach of lookedAt) {
      const part = partRound(shown, pointed, reach);
      const { left, top, right, bottom } = part;
      const picture = await createImageBitmap(shown, left, top, right - left, bottom - top);
      const found = await people.current.api.headsIn(transferred(picture));
      const heads = headsInWhole(found, part, shown);
      const head = headUnder(heads, pointed, shown.width / shown.height);
      if (head) return head;
    }
    return null;
  };
  const tap = async (pointed: Point) => {
    const where = placeAt(pointed);
    const take = where && snapshot.takes.find(({ media }) => media === where.media);
    const measure = take && takeMeasure(snapshot, take);
    const { wanted } = hiding;
    if (!wanted || hiding.looking) return;
    if (!measure) return hiding.say('No take shows there. Tap somebody on the picture.');
    if (wanted.is === 'again' && wanted.take !== take.id)
      return hiding.say('That is another take. Tap them where the one shows that they are hidden in.');
    hiding.look();
    // Without what finds people the tap stands as it is.
    const head = await headAt(pointed).catch(() => null);
    const found = tappedHead(where, head, placeAt);
    const place = { time: found.place.time, at: found.place.at };
    const reach = found.reach ?? usualReach;
    const step = meanStep(measure.times);
    await attempt(() =>
      wanted.is === 'again'
        ? tapHidden(store, moment.project, take.id, wanted.id, place, step)
        : hideSomebody(
            store,
            moment.project,
            take.id,
            place,
            Math.min(veilReaches.most, Math.max(veilReaches.least, reach)),
          ),
    );
    hiding.done(
      found.reach !== null
        ? 'The face under the tap was found, and is hidden.'
        : 'No face was found under the tap: what you tapped is hidden. Make it as large as it has to be.',
    );
  };
  const marks = layers.flatMap((layer): TapMark[] => {
    const { veils, size } = layer.content;
    if (!veils || !showsAt(layer, now)) return [];
    return spotsAt(veils, secondsAt(layer, now), size).map(({ x, y }) => {
      const [across, down] = mapPoint(matrixAt(layer, now), [x, y]);
      return { at: placeOf([across / project.width, down / project.height]), here: true };
    });
  });
  return (
    <TapPad
      frame={frame}
      label={hiding.wanted?.is === 'again' ? 'Tap them again on this picture' : 'Tap the face to hide'}
      marks={marks}
      onTap={(pointed) => void tap(pointed)}
    />
  );
}
