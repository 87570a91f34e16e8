'use client';
import { useMemo, useState } from 'react';
import { moveKeyTo, saidAt, setKeyAt, type Placing } from '@/core/hand/edit';
import { handLayers } from '@/core/hand/move';
import {
  handValueNames,
  handValues,
  valuesOf,
  wholeLayer,
  type HandKey,
  type HandValue,
} from '@/core/hand/schema';
import { placedKeys, type PlacedKey } from '@/core/hand/track';
import { keysAlongWay } from '@/core/hand/way';
import type { Point } from '@/core/geometry/size';
import type { Moment } from '@/core/model/records';
import type { Node } from '@/core/picture/node';
import { setMoment } from '@/store/commands/moments';
import { useAhead } from '@/ui/ahead';
import { useServices } from '@/ui/bench-context';

const none: HandKey[] = [];

/** The keys of a moment that are worked on: of one value of one layer; which of them, and what can be done to it. */
export function useHandKeys(moment: Moment, tree: Node | null, placing: Placing, frame: number) {
  const { store, attempt } = useServices();
  const ahead = useAhead<HandKey[]>();
  const [layer, setLayer] = useState(wholeLayer);
  const [wanted, setValue] = useState<HandValue>('across');
  const [chosen, choose] = useState<number | null>(null);
  const [drawing, setDrawing] = useState(false);
  const layers = useMemo(() => (tree ? handLayers(tree) : []), [tree]);
  const there = layers.some(({ id }) => id === layer) ? layer : wholeLayer;
  const value = valuesOf(there).includes(wanted) ? wanted : 'across';
  const drawn = (of: HandValue) => moment.keys?.[there]?.[of] ?? none;
  const newest = (of: HandValue) => ahead.newest(`${there} ${of}`, drawn(of));
  const keys = drawn(value);
  const placed = placedKeys(keys, placing.anchors, placing.ruler);
  const current: PlacedKey | null =
    placed.find(({ index }) => index === chosen) ?? placed.find((key) => key.frame === frame) ?? null;

  const save = (label: string, of: Partial<Record<HandValue, HandKey[]>>) => {
    const values = handValueNames.flatMap((name) => (of[name] ? [[name, of[name]] as const] : []));
    const done = attempt(() =>
      setMoment(
        store,
        moment.project,
        moment.id,
        label,
        Object.fromEntries(values.map(([name, list]) => [`keys.${there}.${name}`, list])),
      ),
    );
    for (const [name, list] of values) ahead.send(`${there} ${name}`, list, done);
    return done;
  };
  /** the instant after the frame that is looked at, up to which a way is drawn */
  const wayEnds =
    [...placing.anchors].sort((one, other) => one.frame - other.frame).find((one) => one.frame > frame) ??
    placing.anchors[placing.anchors.length - 1];
  const within = (of: HandValue, said: number) =>
    Math.min(handValues[of].max, Math.max(handValues[of].min, Math.round(said * 100) / 100));

  /** Changes one key, or a part of it. */
  const change = (index: number, to: (key: HandKey) => HandKey) =>
    save('Change a key', {
      [value]: newest(value).map((key, at) => (at === index ? to(key) : key)),
    });
  return {
    layers,
    layer: there,
    setLayer: (id: string) => {
      choose(null);
      setLayer(id);
    },
    value,
    setValue: (next: string) => {
      choose(null);
      setValue(next as HandValue);
    },
    placed,
    current,
    choose,
    change,
    /** a key on the frame that is looked at, with the value that stands there */
    add: () => {
      const now = newest(value);
      const next = setKeyAt(now, frame, saidAt(now, value, frame, placing), placing);
      choose(next.index);
      return save('Set a key', { [value]: next.keys });
    },
    remove: (index: number) => {
      choose(null);
      return save('Take a key out', { [value]: newest(value).filter((_, at) => at !== index) });
    },
    /** a key moved by frames and by what it says, from where it was asked to be last */
    nudge: (index: number, frames: number, said: number) =>
      change(index, (key) => {
        const at = placedKeys([key], placing.anchors, placing.ruler)[0]?.frame ?? frame;
        const moved = frames === 0 ? key : moveKeyTo(key, at + frames, placing);
        return { ...moved, value: within(value, key.value + said) };
      }),
    place: (index: number, at: number, said: number) =>
      change(index, (key) => ({
        ...(placed.find((one) => one.index === index)?.frame === at ? key : moveKeyTo(key, at, placing)),
        value: within(value, said),
      })),
    drawing,
    setDrawing,
    wayEnds: { title: `frame ${wayEnds.frame}`, frame: wayEnds.frame },
    /** keys along a way that was drawn, from this frame to the next instant, at one speed */
    drawWay: (path: Point[]) => {
      choose(null);
      const now = { across: newest('across'), down: newest('down') };
      const said = (of: 'across' | 'down') => saidAt(now[of], of, frame, placing);
      const begins = { across: said('across'), down: said('down') };
      const span = { from: frame, until: Math.max(frame + 1, wayEnds.frame) };
      return save('Draw a way', keysAlongWay(path, span, begins, now, placing));
    },
    /** moves the layer on the frame that is looked at, in shares of the frame */
    push: (across: number, down: number) => {
      const moved = (of: 'across' | 'down', by: number) => {
        const now = newest(of);
        return setKeyAt(now, frame, within(of, saidAt(now, of, frame, placing) + by * 100), placing).keys;
      };
      choose(null);
      return save('Move by hand', { across: moved('across', across), down: moved('down', down) });
    },
  };
}
export type HandKeysHere = ReturnType<typeof useHandKeys>;
