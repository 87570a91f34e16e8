'use client';
import { Minimize } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { fileName } from '@/core/formats/file-name';
import type { Finding } from '@/core/finding/finding';
import { usualStature, type Setup } from '@/core/model/plan-records';
import type { Log } from '@/core/model/shoot-records';
import { nextNumber, type Board, type BoardRow } from '@/core/shoot/board';
import { posedTake } from '@/core/shoot/posed-take';
import { perSecond } from '@/core/time/rate';
import type { WatchFrame } from '@/core/watch/alarms';
import { practiceRoleOf } from '@/core/practice/practice-set';
import { holdsAll } from '@/media/camera';
import { removeLog } from '@/store/commands/shoot';
import { newId } from '@/store/db';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Confirm } from '@/ui/confirm';
import { useLeaving } from '@/ui/leaving';
import { beep, soundOut } from '@/ui/sound-out';
import { filling, useFill } from '@/ui/use-fill';
import { useLow, usePhone, useWide } from '@/ui/use-phone';
import { holdRoom, noteSeen, releaseRoom } from '@/workers/recordings';
import { TakeBar } from '../board/take-bar';
import { TakeSheet } from '../board/take-sheet';
import { useSlate } from '../slate/use-slate';
import { useAwake } from '../use-awake';
import { ranFor, useTake } from '../use-take';
import { FaultPart } from './fault-part';
import { Guides } from './guides';
import { MovePart } from './move-part';
import { OverPicture, usualOver } from './over-picture';
import { Overlay } from './overlay';
import { QuickPart } from './quick-part';
import { Readings } from './readings';
import { PoseGuide } from './pose-guide';
import { ShotChooser } from './shot-chooser';
import { useCamera } from './use-camera';
import { usePlate } from './use-plate';
import { usePose } from './use-pose';
import { useRecording } from './use-recording';
import { useRoom } from './use-room';
import { useWatch } from './use-watch';
import { Viewfinder } from './viewfinder';

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
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { project, zones, marks } = snapshot;
  const phone = usePhone();
  const video = useRef<HTMLVideoElement>(null);
  const { width, height, rate } = setup.capture;
  const heldBefore = useCallback(
    async (name: string) => {
      const reference = await store.references.get(setup.id);
      return reference?.camera === name ? reference.held : undefined;
    },
    [store, setup.id],
  );
  const cam = useCamera(
    { width: Math.min(1920, width), height: Math.min(1080, height), rate: perSecond(rate) },
    heldBefore,
  );
  const { camera, practice, held } = cam;
  const { plate, keep, file } = usePlate(board, camera?.name ?? null);
  const take = useTake(board);
  const [settings, setSettings] = useState(usualOver);
  const { playback } = settings;
  const slate = useSlate(row, setup, playback);
  const [moving, setMoving] = useState(false);
  const low = useLow();
  const wide = useWide();
  const { filled, fill } = useFill(low);
  const whole = Boolean(camera) && filled;
  /** the buttons stand beside the picture, and not below it */
  const beside = low || (whole && wide);
  const bitsPerSecond = Math.min(24e6, setup.capture.megabits * 1e6);
  useAwake(Boolean(camera));

  const mine = useMemo(() => zones.filter((zone) => zone.setup === setup.id), [zones, setup.id]);
  const shot = row?.shot;
  const frame = useMemo((): WatchFrame => {
    const lines = (what: 'seam' | 'copy') =>
      mine.filter((zone) => zone.what === what).map(({ name, from, to }) => ({ name, from, to }));
    const meets = plan.moments.some(
      ({ moment, filming }) => filming.touching && shot?.moments.includes(moment.id),
    );
    return { seams: lines('seam'), copies: lines('copy'), touching: meets };
  }, [mine, plan.moments, shot]);

  const { running } = take;
  const note = (log: Log, findings: readonly Finding[]) => {
    const at = Number(ranFor(log).toFixed(1));
    const seen = findings.map(({ code, measured }) => ({ at, code, value: measured?.value ?? null }));
    if (seen.length > 0) void attempt(() => noteSeen(store, log, seen));
  };
  const hear = (fresh: Finding[]) => {
    if (settings.sound) {
      navigator.vibrate?.([180, 80, 180]);
      beep({ hertz: fresh.some(({ severity }) => severity === 'stop') ? 440 : 660, seconds: 0.25 });
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

  const keepPlate = async () => {
    if (camera) await keep(await watch.grab(4), camera.settings());
  };

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
      // Asked for by this very press: alarms that come later may be heard.
      soundOut();
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
      const id = newId();
      let log: Log | null = null;
      try {
        await holdRoom(store, id);
        log = await take.start(
          row,
          {
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
          },
          id,
        );
        const name = `${fileName(`${setup.name} ${row.title}`)}-${log.number}`;
        await recording.begin(camera.stream, log, name, bitsPerSecond);
      } catch (error) {
        plays?.player?.stop();
        await releaseRoom(store, id);
        // What never began is no take.
        if (log) {
          await take.stop(log);
          await removeLog(store, log);
        }
        throw error;
      }
      // What was wrong before the take began is wrong in it too, and is not told again.
      note(log, watch.check?.current ?? []);
      // The plate at the end measures drift; it must not become what drift is measured against.
      if (row.shot?.what === 'plate' && (row.shot?.share !== 'last plate' || !plate)) await keepPlate();
    });

  const end = () => {
    if (!running) return;
    slate.player?.stop();
    // A take that was begun on the slate, or before a reload, has no recording here.
    if (recording.recorded === running.id) recording.stop();
    else void attempt(() => take.stop(running));
  };

  const recorded = recording.recorded !== null;
  const needed = row?.shot?.seconds ?? 10;
  const room = useRoom(store, Boolean(camera), bitsPerSecond, recorded || recording.keeping ? 0 : needed);
  const leaving = useLeaving(recorded);
  const takes = snapshot.takes.filter((one) => takeMeasure(snapshot, one));
  const chosen = takes.find(({ id }) => id === settings.over) ?? null;
  const posed = chosen ?? posedTake(board, row, takes);
  const pose = usePose(
    video,
    camera,
    settings.pose && !recorded,
    posed && (takeMeasure(snapshot, posed)?.poster ?? null),
    marks.find((mark) => mark.setup === setup.id)?.stature ?? usualStature,
  );
  const picture = chosen ? (takeMeasure(snapshot, chosen)?.poster ?? null) : (plate?.pictures[0] ?? null);
  const details = (
    <>
      {row && <TakeSheet key={row.id} row={row} />}
      {camera && (
        <OverPicture
          settings={settings}
          takes={takes}
          posed={posed}
          held={held}
          hasSong={Boolean(slate.timeline)}
          onChange={(set) => setSettings((now) => ({ ...now, ...set }))}
          onPlate={() => attempt(keepPlate)}
          onOff={cam.close}
        />
      )}
      {practice && <FaultPart practice={practice} onChange={() => void cam.holdAgain()} />}
      <QuickPart plate={plate?.from === 'camera' ? plate.pictures : file} frame={frame} />
      <MovePart setup={setup.id} video={video} camera={camera} practice={practice} onMoving={setMoving} />
    </>
  );
  return (
    <div className={whole ? `${filling} flex bg-stage` : 'flex min-h-0 flex-1'}>
      <div className={`flex min-h-0 min-w-0 flex-1 ${beside ? 'flex-row' : 'flex-col'}`}>
        <div
          className={`relative flex min-h-0 min-w-0 flex-1 flex-col ${whole ? '' : 'phone:overflow-y-auto'}`}
        >
          <Viewfinder
            video={video}
            cam={cam}
            overlay={camera ? <Overlay picture={picture} mode={settings.mode} /> : null}
            bright={settings.mode === 'difference' && Boolean(camera)}
            takesRoom={whole || !phone}
            guides={(ratio) =>
              camera && (
                <>
                  {plan.numbers.has(setup.id) && (
                    <Guides
                      kinds={settings.guides}
                      setup={setup}
                      zones={mine}
                      marks={marks.filter((mark) => mark.setup === setup.id)}
                      reading={watch.check?.reading ?? null}
                      ratio={ratio}
                    />
                  )}
                  {posed && <PoseGuide watch={pose} of={posed.name} />}
                </>
              )
            }
          />
          <Readings
            on={Boolean(camera)}
            check={watch.check}
            plate={plate}
            problem={watch.problem}
            over={whole}
          />
          <div
            className={
              whole
                ? 'absolute bottom-3 left-3 flex items-center gap-3 bg-ground/85 px-2.5 py-1'
                : 'flex flex-wrap items-center justify-between gap-2 px-3.5 pb-2.5'
            }
          >
            <ShotChooser board={board} row={row} locked={running !== null || recording.keeping} />
            {camera && !whole && (
              <button type="button" className="knob" onClick={() => fill(true)}>
                Fill the screen
              </button>
            )}
            {whole && !beside && <LeaveFull onLeave={() => fill(false)} />}
          </div>
          {phone && !whole && <div className="flex flex-col gap-4 px-3.5 pb-4">{details}</div>}
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
          beside={beside}
          head={whole && beside ? <LeaveFull onLeave={() => fill(false)} /> : null}
          note={<RoomNote seconds={room} needed={needed} running={recorded} quiet={beside} />}
        />
      </div>
      {!phone && !whole && (
        <aside
          aria-label="Detail"
          className="flex w-[340px] flex-none flex-col gap-4 overflow-y-auto border-l border-line bg-raised px-3.5 py-3"
        >
          {details}
        </aside>
      )}
      <Confirm
        open={leaving !== null}
        title="Stop the take and leave?"
        text="A take is being recorded here. Leaving ends it; what was recorded until then is kept."
        keep="Go on filming"
        act="Stop and leave"
        onAct={() => {
          recording.stop();
          leaving?.goOn();
        }}
        onClose={() => leaving?.stay()}
      />
    </div>
  );
}

/** How much fits on this device before a take, and what will not; while one runs, how much is left. */
function RoomNote({
  seconds,
  needed,
  running,
  quiet,
}: {
  seconds: number | null;
  needed: number;
  running: boolean;
  /** there is no room to say what is fine */
  quiet: boolean;
}) {
  const { go } = useServices();
  if (seconds === null) return null;
  const short = seconds < (running ? 60 : needed);
  const fits = `Room for ${seconds < 60 ? `${Math.floor(seconds)} s` : `${Math.floor(seconds / 60)} min`}`;
  if (!short && quiet) return null;
  if (!short) return <p className="num text-center !text-[12.5px] text-ink2">{fits}</p>;
  return (
    <div
      role="alert"
      data-testid="short-of-room"
      className="border-l-4 border-madder bg-ground px-2 py-1 text-[13.5px]"
    >
      {fits}
      {running ? ' more.' : `, and this shot takes ${needed} s: it will break off.`}{' '}
      {!running && (
        <button type="button" className="underline" onClick={() => go({ station: 'space' })}>
          Free some space
        </button>
      )}
    </div>
  );
}

/** The way back from the full screen. */
const LeaveFull = ({ onLeave }: { onLeave: () => void }) => (
  <button
    type="button"
    className="knob grid place-items-center"
    aria-label="Leave full screen"
    onClick={onLeave}
  >
    <Minimize size={18} aria-hidden />
  </button>
);
