'use client';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import type { Setup } from '@/core/model/plan-records';
import { nextNumber, type Board, type BoardRow } from '@/core/shoot/board';
import { barAndBeat, positionOf } from '@/core/time/grid';
import { rateLabel } from '@/core/time/rate';
import { ActionKey } from '@/ui/actions/action-key';
import { useData, useServices } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { useAwake } from '../use-awake';
import { useRunning, useTake } from '../use-take';
import { sayLengthOfTake } from '../words';
import { BeatFace } from './beat-face';
import { HoldTimer } from './hold-timer';
import { useSlate } from './use-slate';

/** The slate, as large as the screen: shows what is filmed, plays to it, flashes once, shows the beat. */
export function SlateScreen({
  board,
  row,
  setup,
  variation,
  onClose,
}: {
  board: Board;
  row: BoardRow;
  setup: Setup;
  variation: string;
  onClose: () => void;
}) {
  const { attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const slate = useSlate(row, setup);
  const { running, start, stop } = useTake(board);
  const ran = useRunning(running);
  const [seconds, setSeconds] = useState<number | null>(null);
  const flash = useRef<HTMLDivElement>(null);
  /** a press that comes while one is answered is none */
  const beginning = useRef(false);
  const { timeline, passage, player } = slate;
  const grid = snapshot.song?.grid ?? null;
  useAwake();

  const playing = seconds !== null;
  useEffect(() => {
    if (!playing || !player) return;
    let [frame, flashed, lit] = [0, false, false];
    const sync = timeline?.sync ?? 1;
    const draw = () => {
      const now = player.time();
      // White for one picture of the screen, the first one at or after the beep.
      if (lit && flash.current) {
        flash.current.style.opacity = '0';
        lit = false;
      }
      if (!flashed && now >= sync && flash.current) {
        flash.current.style.opacity = '1';
        flash.current.dataset.flashed = 'true';
        [flashed, lit] = [true, true];
      }
      setSeconds(now);
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [playing, player, timeline]);
  useEffect(() => () => player?.stop(), [player]);

  const begin = () =>
    attempt(async () => {
      if (!player || beginning.current) return;
      beginning.current = true;
      try {
        await player.start();
        setSeconds(player.time());
        await start(row, {
          variation,
          ...(timeline && passage
            ? {
                passage: {
                  at: Math.max(0, timeline.song - player.time()),
                  from: passage.from,
                  speed: passage.speed,
                },
              }
            : {}),
        });
      } catch (error) {
        player.stop();
        setSeconds(null);
        throw error;
      } finally {
        beginning.current = false;
      }
    });
  const end = () =>
    attempt(async () => {
      player?.stop();
      setSeconds(null);
      if (running) await stop(running);
      onClose();
    });
  const number = running?.number ?? nextNumber(row);
  const bar = passage && grid ? barAndBeat(grid, passage.from).bar : null;
  return (
    <Dialog.Root open onOpenChange={(open) => !open && !running && onClose()}>
      <Dialog.Portal>
        <Dialog.Content
          className="shoot fixed inset-0 z-40 flex flex-col bg-[#0b0c14] text-[#efe6d6]"
          aria-describedby={undefined}
          onEscapeKeyDown={(event) => running && event.preventDefault()}
        >
          {!playing || !grid || !timeline ? (
            <div
              className="flex min-h-0 flex-1 flex-col justify-center gap-1 overflow-auto px-5"
              data-testid="slate"
            >
              <Dialog.Title className="text-[min(8vw,44px)] leading-tight font-medium">
                {setup.name}
              </Dialog.Title>
              <p className="font-serif text-[min(10vw,60px)] leading-tight">{row.title}</p>
              <p
                className="num !text-[min(40vw,38vh)] !leading-[0.95] !font-bold"
                aria-label={`Take ${number}`}
              >
                {number}
              </p>
              <p className="num !text-[min(5vw,24px)]">
                {new Date().toLocaleDateString('sv')} · {rateLabel(setup.capture.rate)} a second
                {variation && ` · ${variation}`}
              </p>
              {passage && timeline && grid && bar !== null && (
                <p className="mt-3 text-[17px]">
                  Plays from bar{' '}
                  <LiveNumber
                    label="Bar to play from"
                    value={bar}
                    step={1}
                    min={1}
                    show={(value) => String(value)}
                    onChange={(value) => slate.setFrom(positionOf(grid, value))}
                  />{' '}
                  at{' '}
                  <LiveNumber
                    label="Speed of playback"
                    value={passage.speed * 100}
                    step={1}
                    min={20}
                    max={500}
                    show={(value) => `${Math.round(value)} %`}
                    onChange={(value) => slate.setSpeed(value / 100)}
                  />{' '}
                  after a count. The flash and the beep lie{' '}
                  <b className="num !text-[16px]" data-testid="sync-frames">
                    {timeline.frames}
                  </b>{' '}
                  frames before it.
                </p>
              )}
              <div className="mt-3 flex">
                <HoldTimer
                  start={Math.max(1, (timeline ? timeline.end - timeline.song : row.shot?.seconds) ?? 4)}
                />
              </div>
            </div>
          ) : (
            <>
              <Dialog.Title className="sr-only">
                {setup.name}, {row.title}, take {number}
              </Dialog.Title>
              <BeatFace grid={grid} timeline={timeline} seconds={seconds ?? 0} />
            </>
          )}
          <ActionKey
            inDialog
            action={{
              id: 'slate',
              text: 'Begin or stop the take',
              scope: 'set',
              keys: ['r'],
              run: () => void (running ? end() : begin()),
            }}
          />
          <div className="flex gap-2.5 px-4 pt-3 pb-5">
            {running ? (
              <button
                type="button"
                className="big flex-1 bg-[#f08a75] !text-[20px] text-[#15182b]"
                data-ran={Math.floor(ran)}
                onClick={end}
              >
                Stop · <span className="num !text-[20px]">{sayLengthOfTake(ran)}</span>
              </button>
            ) : (
              <>
                <button type="button" className="big border border-[#8a8798] px-6" onClick={onClose}>
                  Back
                </button>
                <button
                  type="button"
                  className="big flex-1 bg-[#efe6d6] !text-[20px] text-[#15182b] disabled:opacity-60"
                  disabled={!player}
                  onClick={begin}
                >
                  {player ? `Begin take ${number}` : 'Making the playback …'}
                </button>
              </>
            )}
          </div>
          <div
            ref={flash}
            className="pointer-events-none fixed inset-0 z-50 bg-white opacity-0"
            data-testid="flash"
            aria-hidden
          />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
