'use client';
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { CoreError } from '@/core/error';
import { fitWithin, type Size } from '@/core/geometry/size';
import { filesIn, type Node } from '@/core/picture/node';
import type { Store } from '@/store/db';
import { openPainter, type Client } from '@/workers/clients';
import type { PainterApi } from '@/workers/painter.worker';
import { asCoreError } from '@/workers/plain-errors';
import { paintersFor, painterTrial, tryPaintersHere } from '@/workers/painters';
import { sourcesOf } from '@/workers/sources';
import { KeptPictures } from './kept-pictures';

/** What the stage shows: one picture, or how much it differs from another. */
export type Showing = { tree: Node; against: Node | null; frame: number };

/** What the canvas shows, and how many pictures were drawn on it until now. */
export type Shown = { frame: number; count: number };

/** What is said where pictures that should show are not in this browser. */
async function absentOf(
  store: Store,
  media: readonly string[],
  sources: readonly { media: string }[],
): Promise<CoreError | null> {
  const here = new Set(sources.map((source) => source.media));
  const rows = await store.media.bulkGet(media.filter((id) => !here.has(id)));
  const names = rows.flatMap((row) => (row ? [row.name] : []));
  if (rows.length === 0) return null;
  return {
    code: 'absent',
    message:
      names.length === 0
        ? 'A take’s file did not come to this browser. Carry the project over again with its films.'
        : `The pictures of ${new Intl.ListFormat('en').format(names)} are not in this browser. Bring ${names.length === 1 ? 'the file' : 'the files'} in again; the shot stays as it is.`,
  };
}

/**
 * Paints onto a canvas through the painter's worker. While a picture is being made the newest wish waits and
 * older ones are dropped, so that sound never waits for pictures.
 */
export function usePainter(
  canvas: RefObject<HTMLCanvasElement | null>,
  store: Store,
  { width, height }: Size,
  showing: Showing,
): { shown: Shown | null; problem: CoreError | null } {
  const client = useRef<Client<PainterApi> | null>(null);
  const busy = useRef(false);
  const loaded = useRef('');
  const absent = useRef<CoreError | null>(null);
  const wish = useRef<(() => Promise<void>) | null>(null);
  const kept = useRef(new KeptPictures());
  const [shown, setShown] = useState<Shown | null>(null);
  const [problem, setProblem] = useState<CoreError | null>(null);

  useEffect(() => {
    client.current = openPainter();
    busy.current = false;
    loaded.current = '';
    const pictures = kept.current;
    return () => {
      pictures.clear();
      client.current?.end();
      client.current = null;
    };
  }, []);

  const { tree, against, frame } = showing;
  useEffect(() => {
    const delivery: Size = { width, height };
    const media = [...new Set([...filesIn(tree), ...(against ? filesIn(against) : [])])];
    const paint = async () => {
      const painter = client.current;
      if (!painter || media.length === 0) return;
      const painters = paintersFor('stage');
      const key = JSON.stringify([media, delivery, painters]);
      if (key !== loaded.current) {
        const sources = await sourcesOf(store, media, 'proxies');
        await painter.api.useSources(sources, delivery, fitWithin(delivery, 640), painters);
        absent.current = await absentOf(store, media, sources);
        loaded.current = absent.current ? '' : key;
      }
      kept.current.about(tree, against, key);
      const there = kept.current.at(frame);
      const bitmap =
        there ??
        (against
          ? await painter.api.paintDifference(tree, against, frame)
          : await painter.api.paint(tree, frame));
      const target = canvas.current;
      if (target) {
        if (target.width !== bitmap.width) [target.width, target.height] = [bitmap.width, bitmap.height];
        target.getContext('2d')?.drawImage(bitmap, 0, 0);
      }
      // What lacks a file is painted anew until that is here.
      if (absent.current) bitmap.close();
      else if (!there) kept.current.keep(frame, bitmap);
      setShown((before) => ({ frame, count: (before?.count ?? 0) + 1 }));
      setProblem(absent.current);
      // Once on each device, when there is something to see while it lasts; where it fails, the processor goes on.
      if (!painterTrial()) void tryPaintersHere().catch(() => undefined);
    };
    wish.current = paint;
    const work = async () => {
      if (busy.current) return;
      busy.current = true;
      while (wish.current && client.current) {
        const next = wish.current;
        wish.current = null;
        await next().catch((error: unknown) => setProblem(asCoreError(error)));
      }
      busy.current = false;
    };
    void work();
  }, [tree, against, frame, width, height, store, canvas]);

  return { shown, problem };
}
