'use client';
import { useMemo } from 'react';
import { readCoordinate, sayCoordinate } from '@/core/camera/read-place';
import { readShutter } from '@/core/camera/read-shutter';
import { exposureOf, lightWanted } from '@/core/camera/exposure';
import { calmPan, captureRates } from '@/core/camera/speed';
import { coloursIn, readColour } from '@/core/camera/key-colour';
import { edgeLeft, roomToMove } from '@/core/camera/reserve';
import type { Setup } from '@/core/model/plan-records';
import { usualDay } from '@/core/plan/plan';
import { lightOfDay } from '@/core/plan/setup/day-light';
import { perSecond, rateLabel, sameRate } from '@/core/time/rate';
import { clockTime } from '@/core/time/zone';
import { sayLength } from '@/core/units';
import { setDay, setPart } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveLength, useUnits } from '@/ui/live-length';
import { LiveNumber } from '@/ui/live-number';
import { LiveText } from '@/ui/live-text';
import { useSetupDraft } from '../use-setup-draft';
import {
  BlurDrawing,
  DepthDrawing,
  FieldDrawing,
  ReserveDrawing,
  ScreenDrawing,
  ShutterDrawing,
  SpeedDrawing,
  SunDrawing,
  SupplyDrawing,
  UprightDrawing,
} from './drawings';

function Card({
  title,
  drawing,
  children,
}: {
  title: string;
  drawing: React.ReactNode;
  children: React.ReactNode;
}) {
  return (
    <section className="border border-line bg-raised p-3" data-number={title}>
      <h2 className="mb-1 text-[15px] font-[560]">{title}</h2>
      {drawing}
      <p className="mt-1 leading-[1.75]">{children}</p>
    </section>
  );
}

/** Every number of a setup with its drawing; they answer while one types. */
export function NumbersPage({ setup: stored }: { setup: Setup }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const units = useUnits();
  const { shown: setup, numbers, draft } = useSetupDraft(stored);
  if (!numbers) return null;
  const { project } = snapshot;
  const mains = snapshot.day?.mains ?? usualDay.mains;
  const save = (label: string, set: Record<string, unknown>) =>
    attempt(() => setPart(store, setup.project, setup.id, label, set));
  const { needed, sharp, speed, shutter, reserve, blur, supplies, frame } = numbers;
  const used = coloursIn(setup.colours);
  const rate = captureRates.findIndex((one) => sameRate(one, setup.capture.rate));
  return (
    <div className="grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-3 p-5 phone:p-3">
      <Card
        title="Depth of field"
        drawing={
          <DepthDrawing numbers={numbers} focus={setup.focus} reach={setup.walls.ahead} units={units} />
        }
      >
        f/{setup.aperture} focused at{' '}
        <LiveLength
          label="Focus distance"
          value={stored.focus}
          onDraft={draft('focus')}
          onChange={(focus) => save('Focus', { focus })}
        />{' '}
        is sharp from <b className="num">{sayLength(sharp.near, units)}</b> to{' '}
        <b className="num">{sayLength(sharp.far, units)}</b>.{' '}
        {needed &&
          (needed.marked === null
            ? 'No f-number holds every mark.'
            : `Every mark needs f/${needed.marked} focused at ${sayLength(needed.focus, units)}: ${needed.stops === 0 ? 'no more light' : `${needed.stops.toFixed(1)} stops (× ${(2 ** needed.stops).toFixed(1)} light, or ISO ${needed.iso})`}.`)}
      </Card>
      <Card title="Field of view" drawing={<FieldDrawing frame={frame} units={units} />}>
        <LiveNumber
          label="Focal length of the field"
          value={stored.focal}
          onDraft={draft('focal')}
          step={1}
          show={(value) => `${value} mm`}
          onChange={(focal) => save('Focal length', { focal })}
        />{' '}
        on {setup.sensor.width} mm shows <b className="num">{frame.angle.toFixed(1)}°</b>, and{' '}
        <b className="num">{sayLength(frame.width, units)}</b> across at {sayLength(frame.distance, units)}.
        {numbers.match && (
          <>
            {' '}
            To repeat {snapshot.setups.find(({ id }) => id === numbers.match?.model)?.name}: the performer at{' '}
            <b className="num">{sayLength(numbers.match.distance, units)}</b>, the lens at{' '}
            <b className="num">{sayLength(numbers.match.height, units)}</b>.
          </>
        )}
      </Card>
      <Card
        title="Shutter and mains"
        drawing={<ShutterDrawing shutter={shutter} seconds={1 / setup.shutter} />}
      >
        <LiveNumber
          label="Shutter part of a second"
          value={stored.shutter}
          onDraft={draft('shutter')}
          step={1}
          min={0.1}
          show={(value) => `1/${Number(value.toFixed(1))} s`}
          read={(text) => readShutter(text, perSecond(setup.capture.rate))}
          onChange={(value) => save('Shutter', { shutter: value })}
        />{' '}
        is <b className="num">{shutter.angle.toFixed(0)}°</b>; lamps on{' '}
        <LiveChoice
          label="Mains"
          value={String(mains)}
          options={[
            { value: '50', text: '50 Hz' },
            { value: '60', text: '60 Hz' },
          ]}
          onChange={(value) =>
            attempt(() => setDay(store, snapshot.project.id, { mains: value === '60' ? 60 : 50 }))
          }
        />{' '}
        flicker by up to <b className="num">{(shutter.flicker * 100).toFixed(0)} %</b>. Steady nearby: 1/
        {shutter.steady} s. 180° is 1/{(1 / exposureOf(180, setup.capture.rate)).toFixed(2)} s. With f/
        {setup.aperture} and ISO {setup.iso} that wants light of EV{' '}
        <b className="num">{lightWanted(setup.aperture, 1 / setup.shutter, setup.iso).toFixed(1)}</b>.
      </Card>
      <Card
        title="Capture rate"
        drawing={
          <SpeedDrawing
            filmed={perSecond(setup.capture.rate)}
            shown={perSecond(project.rate)}
            speed={speed.slowest}
          />
        }
      >
        Filmed at{' '}
        <LiveChoice
          label="Capture rate of the speed"
          value={String(rate)}
          options={captureRates.map((one, index) => ({ value: String(index), text: rateLabel(one) }))}
          onChange={(value) => save('Capture rate', { 'capture.rate': captureRates[Number(value)] })}
        />
        , delivered at {rateLabel(project.rate)}: down to{' '}
        <b className="num">{(speed.possible * 100).toFixed(1)} %</b> without doubling. The slowest shot here
        runs at {(speed.slowest * 100).toFixed(0)} % and needs{' '}
        <b className="num">{speed.needed ? rateLabel(speed.needed) : 'more than any listed camera'}</b>.
        Playback on the set: <b className="num">{(speed.playback * 100).toFixed(0)} %</b>
        {speed.playback > 1 && ' for that shot, 100 % for what is not slowed'}.
      </Card>
      <Card
        title="Spare picture"
        drawing={<ReserveDrawing reserve={reserve} shape={setup.capture.width / setup.capture.height} />}
      >
        {reserve.draws.length === 0
          ? 'Nothing here enlarges the picture. '
          : `${reserve.draws.map(({ name, scale }) => `${name} ${(scale * 100).toFixed(0)} %`).join(' × ')} = `}
        <b className="num">{(reserve.needed * 100).toFixed(0)} %</b>; filmed{' '}
        <b className="num">{(reserve.there * 100).toFixed(0)} %</b> of the delivery.{' '}
        {reserve.sharpness >= 1 ? 'Enough' : 'Too little'}: {reserve.sharpness.toFixed(2)} px filmed for each
        px shown. {(reserve.needed * 100).toFixed(0)} % leaves {(edgeLeft(reserve.needed) * 100).toFixed(1)} %
        at each side, {Math.round(roomToMove(reserve.needed, project.width))} px.
      </Card>
      <Card
        title="Upright cut"
        drawing={<UprightDrawing share={reserve.upright} shape={project.width / project.height} />}
      >
        An upright film keeps <b className="num">{(reserve.upright * project.width).toFixed(1)} px</b> of{' '}
        {project.width}. Keep arms and props inside it.
      </Card>
      <Card title="Motion blur" drawing={<BlurDrawing pixels={blur.pixels} width={project.width} />}>
        The fastest move here crosses {blur.travel.toFixed(1)} frame widths a second: at 1/{setup.shutter} s
        it smears over <b className="num">{blur.pixels.toFixed(0)} px</b>. A calm pan takes{' '}
        {calmPan(setup.capture.rate).toFixed(1)} s across the frame.
      </Card>
      <SunCard setup={setup} />
      <Card title="Screen colour" drawing={<ScreenDrawing screens={numbers.screens} used={used} />}>
        Clothes and set:{' '}
        <LiveText
          label="Colours of clothes and set"
          value={setup.colours}
          empty="colours like #8a2f24 #d8b48a"
          onChange={(text) =>
            attempt(async () => {
              const colours = coloursIn(text);
              colours.forEach(readColour);
              await setPart(store, setup.project, setup.id, 'Colours', { colours: colours.join(' ') });
            })
          }
        />
        .{' '}
        {numbers.screens[0] && used.length > 0 && (
          <>
            Furthest from them: <b>{numbers.screens[0].name}</b>, ΔE {numbers.screens[0].distance.toFixed(0)}.
          </>
        )}
      </Card>
      <Card
        title="Storage and battery"
        drawing={<SupplyDrawing card={supplies.card} battery={supplies.battery} />}
      >
        {Math.ceil(supplies.minutes)} min of recording at{' '}
        <LiveNumber
          label="Megabits a second"
          value={stored.capture.megabits}
          onDraft={draft('capture.megabits')}
          step={5}
          show={(value) => `${value} Mb/s`}
          onChange={(megabits) => save('Data rate', { 'capture.megabits': megabits })}
        />{' '}
        take <b className="num">{supplies.needed.toFixed(1)} GB</b> of {setup.card} GB.
      </Card>
    </div>
  );
}

/** How long the sun's light holds on the day of filming, and when it holds longest. */
function SunCard({ setup }: { setup: Setup }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { day } = snapshot;
  const light = useMemo(() => lightOfDay(day), [day]);
  const save = (set: Parameters<typeof setDay>[2]) => attempt(() => setDay(store, snapshot.project.id, set));
  return (
    <Card
      title="Sun"
      drawing={
        <SunDrawing
          starts={light?.starts ?? []}
          best={light?.best?.start ?? null}
          clock={(time) => clockTime(time, day?.zone ?? 'UTC')}
        />
      }
    >
      At{' '}
      <LiveNumber
        label="Latitude"
        value={day?.latitude ?? 0}
        step={0.1}
        min={-90}
        max={90}
        show={(value) => sayCoordinate(value, 'latitude')}
        read={(text) => readCoordinate(text, 'latitude')}
        onChange={(latitude) => save({ latitude, longitude: day?.longitude ?? 0 })}
      />
      ,{' '}
      <LiveNumber
        label="Longitude"
        value={day?.longitude ?? 0}
        step={0.1}
        min={-180}
        max={180}
        show={(value) => sayCoordinate(value, 'longitude')}
        read={(text) => readCoordinate(text, 'longitude')}
        onChange={(longitude) => save({ longitude, latitude: day?.latitude ?? 0 })}
      />
      , within{' '}
      <LiveNumber
        label="Allowed change of light"
        value={day?.stops ?? usualDay.stops}
        step={0.05}
        min={0.05}
        max={3}
        show={(value) => `${value.toFixed(2)} stops`}
        onChange={(stops) => save({ stops })}
      />{' '}
      and{' '}
      <LiveNumber
        label="Allowed change of direction"
        value={day?.degrees ?? usualDay.degrees}
        step={1}
        min={1}
        max={90}
        show={(value) => `${value}°`}
        onChange={(degrees) => save({ degrees })}
      />
      .{' '}
      {day && light ? (
        <>
          From {day.start} on {day.date} it holds for <b className="num">{light.holds} min</b>
          {light.best && (
            <>
              ; longest from <b className="num">{clockTime(light.best.start, day.zone)}</b>,{' '}
              {light.best.minutes} min
            </>
          )}
          .
        </>
      ) : (
        'Set where you film to see how long the light stays the same.'
      )}{' '}
      {setup.place === 'inside' && 'This setup is inside: it matters only near windows.'}
    </Card>
  );
}
