'use client';
import type { Frame } from '@/ui/stage/stage';
import { DrawPad } from '../draw/draw-pad';
import { MovePad } from './move-pad';
import type { HandKeysHere } from './use-hand-keys';

/** The picture as something that is moved by hand: dragged on one frame, or along a way that is drawn. */
export function HandPad({ frame, hand }: { frame: Frame; hand: HandKeysHere }) {
  const title = hand.layers.find(({ id }) => id === hand.layer)?.title ?? '';
  if (!hand.drawing)
    return <MovePad frame={frame} title={title} onMove={(across, down) => void hand.push(across, down)} />;
  return (
    <DrawPad
      frame={frame}
      label={`Draw the way of ${title} until ${hand.wayEnds.title}`}
      brush={null}
      onDraw={(path) => void hand.drawWay(path)}
    />
  );
}
