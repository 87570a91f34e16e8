'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Finding } from '@/core/finding/finding';
import type { Setup } from '@/core/model/plan-records';
import type { Log } from '@/core/model/shoot-records';
import { nextNumber, type Board, type BoardRow } from '@/core/shoot/board';
import { perSecond } from '@/core/time/rate';
import type { WatchFrame } from '@/core/watch/alarms';
import { practiceRoleOf } from '@/core/practice/practice-set';
import { holdsAll } from '@/media/camera';
import { takeMeasure } from '@/store/snapshot';
import { useBench } from '@/ui/bench-context';
import { Choices } from '@/ui/choices';
import { LiveChoice } from '@/ui/live-choice';
import { useNarrow } from '@/ui/use-narrow';
import { useSize } from '@/ui/use-size';
import { noteSeen } from '@/workers/recordings';
import { fileName } from '../../save';
import { TakeBar } from '../board/take-bar';
import { beep } from '../slate/slate-player';
import { useSlate } from '../slate/use-slate';
import { useAwake } from '../use-awake';
import { ranFor, useTake } from '../use-take';
import { FaultPart } from './fault-part';
import { askForLean, Guides, guideKinds, type GuideKind } from './guides';
import { MovePart } from './move-part';
import { Overlay, overlayModes, type OverlayMode } from './overlay';
import { QuickPart } from './quick-part';
import { Readings } from './readings';
import { useCamera } from './use-camera';
import { usePlate } from './use-plate';
import { useRecording } from './use-recording';
import { useWatch } from './use-watch';

/** The device's camera as viewfinder, with what was planned and filmed laid over it, watched while it runs. */
export function CameraPage({
  board,
  row,
  setup,
  variation,
}: {
  board: Board;
  row: BoardRow | null;
  setup: Setup;
  variation: string;
}) {
  const { store, snapshot, attempt, plan } = useBench();
  const { project, zones, marks } = snapshot;
  const narrow = useNarrow();
  const video = useRef<HTMLVideoElement>(null);
  const { width, height, rate } = setup.capture;
  const cam = useCamera({
    width: Math.min(1920, width),
    height: Math.min(1080, height),
    rate: perSecond(rate),
  });
  const { camera, practice, held } = cam;
  const { plate, keep, file } = usePlate(board, camera?.name ?? null);
  const take = useTake(board);
  const [mode, setMode] = useState<OverlayMode>('onion skin');
  const [over, setOver] = useState('plate');
  const [guides, setGuides] = useState<ReadonlySet<GuideKind>>(new Set(['zones']));
  const [sound, setSound] = useState(true);
  const [playback, setPlayback] = useState(false);
  const slate = useSlate(row, setup, playback);
  const [moving, setMoving] = useState(false);
  const [ratio, setRatio] = useState(16 / 9);
  const [stage, area] = useSize<HTMLDivElement>();
  useAwake(Boolean(camera));

  const mine = useMemo(() => zones.filter((zone) => zone.setup === setup.id), [zones, setup.id]);
  const frame = useMemo((): WatchFrame => {
    const lines = (what: 'seam' | 'copy') =>
      mine.filter((zone) => zone.what === what).map(({ name, from, to }) => ({ name, from, to }));
    return { seams: lines('seam'), copies: lines('copy') };
  }, [mine]);

  const { running } = take;
  const note = (log: Log, findings: readonly Finding[]) => {
    const at = Number(ranFor(log).toFixed(1));
    const seen = findings.map(({ code, measured }) => ({ at, code, value: measured?.value ?? null }));
    if (seen.length > 0) void attempt(() => noteSeen(store, log, seen));
  };
  const hear = (fresh: Finding[]) => {
    if (sound) {
      navigator.vibrate?.([180, 80, 180]);
      beep(fresh.some(({ severity }) => severity === 'stop') ? 440 : 660, 0.25);
    }
    if (running) note(running, fresh);
  };
  const watch = useWatch(
    video,
    camera,
    Boolean(camera) && !moving,
    plate?.pictures ?? null,
    frame,
    project,
    hear,
  );

  const recording = useRecording(async (log: Log) => {
    slate.player?.stop();
    const now = await store.records.get(log.id);
    if (now?.kind === 'log' && now.length === null) await take.stop(now);
  });

  useEffect(() => {
    const element = video.current;
    if (!element || !camera) return;
    element.srcObject = camera.stream;
    void element.play().catch(() => undefined);
    return () => {
      element.srcObject = null;
    };
  }, [camera]);

  const begin = () =>
    attempt(async () => {
      if (!row || !camera) return;
      const [served] = row.shot?.moments ?? [];
      const planned = plan.moments.find(({ moment }) => moment.id === served);
      const acted = planned?.filming.shots.filter(({ what }) => what === 'action') ?? [];
      const before = acted.findIndex(({ key }) => key === row.shot?.key);
      practice?.stage(
        practiceRoleOf(row.shot?.what ?? (row.pickup ? 'action' : 'plate'), Math.max(0, before)),
        nextNumber(row),
      );
      const plays = playback && slate.timeline && slate.passage && slate.player ? slate : null;
      if (plays) await plays.player?.start();
      const log = await take.start(row, {
        variation,
        ...(held && !holdsAll(held) ? { draft: true } : {}),
        ...(plays?.timeline && plays.passage && plays.player
          ? {
              passage: {
                at: Math.max(0, plays.timeline.song - plays.player.time()),
                from: plays.passage.from,
                speed: plays.passage.speed,
              },
            }
          : {}),
      });
      const name = `${fileName(`${setup.name} ${row.title}`)}-${log.number}`;
      try {
        await recording.begin(camera.stream, log, name, Math.min(24e6, setup.capture.megabits * 1e6));
      } catch (error) {
        await take.stop(log);
        throw error;
      }
      // What was wrong before the take began is wrong in it too, and is not told again.
      note(log, watch.check?.current ?? []);
      // The plate at the end measures drift; it must not become what drift is measured against.
      if (row.shot?.what === 'plate' && (row.shot?.share !== 'last plate' || !plate))
        await keep(await watch.grab(4));
    });

  const end = () => {
    if (!running) return;
    slate.player?.stop();
    // A take that was begun on the slate, or before a reload, has no recording here.
    if (recording.recording(running.id)) recording.stop();
    else void attempt(() => take.stop(running));
  };

  const takes = snapshot.takes.filter((one) => takeMeasure(snapshot, one));
  const chosen = takes.find(({ id }) => id === over) ?? null;
  const picture = chosen ? (takeMeasure(snapshot, chosen)?.poster ?? null) : (plate?.pictures[0] ?? null);
  const plans = plan.numbers.has(setup.id);
  const beside = (
    <>
      {camera && (
        <section className="flex flex-col gap-2" aria-label="Over the picture">
          <h2 className="text-[16px] font-[560]">Over the picture</h2>
          <Choices
            label="How the earlier picture is laid over"
            options={overlayModes}
            pressed={(one) => mode === one}
            onPress={setMode}
          />
          <p className="text-[14px]">
            of{' '}
            <LiveChoice
              label="Earlier picture"
              value={over}
              options={[
                { value: 'plate', text: 'the plate' },
                ...takes.map(({ id, name }) => ({ value: id, text: name })),
              ]}
              onChange={setOver}
            />
          </p>
          <Choices
            label="Guides"
            options={guideKinds}
            pressed={(kind) => guides.has(kind)}
            onPress={(kind) => {
              if (kind === 'level') void askForLean();
              setGuides(
                new Set(guides.has(kind) ? [...guides].filter((one) => one !== kind) : [...guides, kind]),
              );
            }}
          />
          <div className="flex flex-wrap gap-2">
            <button type="button" className="knob" aria-pressed={sound} onClick={() => setSound(!sound)}>
              Alarm sounds
            </button>
            {slate.timeline && (
              <button
                type="button"
                className="knob"
                aria-pressed={playback}
                onClick={() => setPlayback(!playback)}
              >
                Play the song to takes
              </button>
            )}
            <button
              type="button"
              className="knob"
              onClick={() => attempt(async () => keep(await watch.grab(4)))}
            >
              This is the plate now
            </button>
            <button type="button" className="knob" onClick={cam.close}>
              Camera off
            </button>
          </div>
          {held && !holdsAll(held) && (
            <p className="text-[14px]" data-testid="draft">
              This camera cannot hold{' '}
              {[!held.exposure && 'exposure', !held.focus && 'focus', !held.white && 'white balance']
                .filter(Boolean)
                .join(', ')}{' '}
              here: takes are marked as drafts. For the film itself use the camera’s own application, and
              Quick check.
            </p>
          )}
        </section>
      )}
      {practice && <FaultPart practice={practice} onChange={() => void cam.holdAgain()} />}
      <QuickPart plate={plate?.from === 'camera' ? plate.pictures : file} frame={frame} />
      <MovePart setup={setup.id} video={video} camera={camera} practice={practice} onMoving={setMoving} />
    </>
  );
  return (
    <div className="flex min-h-0 flex-1">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="flex min-h-0 flex-1 flex-col max-sm:overflow-y-auto">
          <div
            ref={stage}
            className="relative flex items-center justify-center overflow-hidden bg-stage max-sm:flex-none sm:min-h-0 sm:flex-1"
          >
            <div
              className="relative w-full max-w-full"
              style={{
                aspectRatio: String(ratio),
                // Where height is short the picture keeps its shape, so that what is laid over it fits.
                ...(!narrow && area.height > 0 ? { width: Math.min(area.width, area.height * ratio) } : {}),
              }}
            >
              <div
                className="absolute inset-0"
                style={mode === 'difference' && camera ? { filter: 'brightness(4)' } : undefined}
              >
                <video
                  ref={video}
                  muted
                  playsInline
                  className="absolute inset-0 h-full w-full"
                  aria-label="Viewfinder"
                  onLoadedMetadata={({ currentTarget: { videoWidth, videoHeight } }) =>
                    videoHeight > 0 && setRatio(videoWidth / videoHeight)
                  }
                />
                {camera && <Overlay picture={picture} mode={mode} />}
              </div>
              {camera && plans && (
                <Guides
                  kinds={guides}
                  setup={setup}
                  zones={mine}
                  marks={marks.filter((mark) => mark.setup === setup.id)}
                  reading={watch.check?.reading ?? null}
                  ratio={ratio}
                />
              )}
              {!camera && (
                <div className="absolute inset-0 flex flex-col items-center justify-center gap-2.5 p-4 text-center">
                  {cam.problem && (
                    <p
                      className="max-w-[44ch] bg-raised px-3 py-2 text-[14px]"
                      role="alert"
                      data-problem={cam.problem.code}
                    >
                      {cam.problem.message}
                    </p>
                  )}
                  <div className="flex flex-wrap justify-center gap-2">
                    <button
                      type="button"
                      className="knob main"
                      disabled={cam.opening}
                      onClick={() => void cam.openDevice()}
                    >
                      {cam.opening ? 'Opening …' : 'Open the camera'}
                    </button>
                    <button type="button" className="knob bg-raised" onClick={() => void cam.openPractice()}>
                      Practice camera
                    </button>
                  </div>
                </div>
              )}
            </div>
          </div>
          <Readings on={Boolean(camera)} check={watch.check} plate={plate} problem={watch.problem} />

          {narrow && <div className="flex flex-col gap-4 px-3.5 pb-4">{beside}</div>}
        </div>
        <TakeBar
          board={board}
          row={row}
          begin={
            !camera
              ? 'The camera is off'
              : recording.keeping
                ? 'Keeping the take …'
                : `Record take # · ${row?.title ?? ''}`
          }
          busy={!camera || recording.keeping || (playback && !slate.player)}
          onBegin={begin}
          onStop={end}
        />
      </div>
      {!narrow && (
        <aside
          aria-label="Detail"
          className="flex w-[340px] flex-none flex-col gap-4 overflow-y-auto border-l border-line bg-raised px-3.5 py-3"
        >
          {beside}
        </aside>
      )}
    </div>
  );
}
