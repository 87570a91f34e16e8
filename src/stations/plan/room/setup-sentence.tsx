'use client';
import { useState } from 'react';
import { readAperture, readShutter } from '@/core/camera/read-shutter';
import { sensors } from '@/core/camera/sensors';
import { apertures, shutters } from '@/core/camera/exposure';
import { captureRates } from '@/core/camera/speed';
import type { Setup } from '@/core/model/plan-records';
import { rigs } from '@/core/plan/setup/examine-setup';
import { perSecond, rateLabel, sameRate } from '@/core/time/rate';
import { setPart } from '@/store/commands/plan';
import { useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveLength } from '@/ui/live-length';
import { LiveNumber } from '@/ui/live-number';
import type { Draft } from '../use-setup-draft';

const sizes = [
  [1280, 720],
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
  [1080, 1920],
  [2160, 3840],
] as const;

/** Moves along a list of usual values; typed values are taken as they are. */
const along = (list: readonly number[], from: number, to: number): number => {
  const next = to > from ? list.find((one) => one > from + 1e-9) : list.findLast((one) => one < from - 1e-9);
  return next ?? from;
};

/** A setup in a sentence: camera, lens, exposure, where it stands. */
export function SetupSentence({ setup, draft }: { setup: Setup; draft: Draft }) {
  const { store, attempt } = useServices();
  const save = (label: string, set: Record<string, unknown>) =>
    attempt(() => setPart(store, setup.project, setup.id, label, set));
  const listed = sensors.find(
    ({ width, height }) => width === setup.sensor.width && height === setup.sensor.height,
  );
  const [own, setOwn] = useState(false);
  const { capture } = setup;
  const size = `${capture.width}x${capture.height}`;
  const sizeOptions = sizes.map(([width, height]) => ({
    value: `${width}x${height}`,
    text: `${width} × ${height}`,
  }));
  const rate = captureRates.findIndex((one) => sameRate(one, capture.rate));
  const plain = (
    label: string,
    field: 'focal' | 'iso' | 'kelvin' | 'tilt' | 'card' | 'battery',
    step: number,
    unit: string,
  ) => (
    <LiveNumber
      label={label}
      value={setup[field]}
      step={step}
      min={field === 'tilt' ? undefined : 0}
      show={(value) => `${Number(value.toFixed(1))}${unit}`}
      onDraft={draft(field)}
      onChange={(value) => save(label, { [field]: Number(value.toFixed(2)) })}
    />
  );
  const sensorSide = (side: 'width' | 'height') => (
    <LiveNumber
      label={`Sensor ${side}`}
      value={setup.sensor[side]}
      step={0.1}
      show={(value) => `${Number(value.toFixed(2))} mm`}
      onDraft={draft(`sensor.${side}`)}
      onChange={(value) => save('Sensor', { [`sensor.${side}`]: Number(value.toFixed(2)) })}
    />
  );
  return (
    <p className="font-serif text-[16px] leading-[1.9]" data-testid="setup-sentence">
      A {plain('Focal length', 'focal', 1, ' mm')} lens on{' '}
      <LiveChoice
        label="Sensor"
        value={own || !listed ? 'own' : listed.id}
        options={[
          ...sensors.map(({ id, name, width, height }) => ({
            value: id,
            text: `${width} × ${height} mm`,
            why: name,
          })),
          { value: 'own', text: 'a size of my own' },
        ]}
        onChange={(id) => {
          const chosen = sensors.find((one) => one.id === id);
          setOwn(!chosen);
          if (chosen) void save('Sensor', { sensor: { width: chosen.width, height: chosen.height } });
        }}
      />
      {(own || !listed) && (
        <>
          {' '}
          of {sensorSide('width')} × {sensorSide('height')}
        </>
      )}
      ,{' '}
      <LiveLength
        label="Height of the lens"
        value={setup.height}
        onDraft={draft('height')}
        onChange={(height) => save('Height', { height })}
      />{' '}
      high, tilted down {plain('Tilt', 'tilt', 1, '°')}, at{' '}
      <LiveNumber
        label="Aperture"
        value={setup.aperture}
        step={0.1}
        min={0.5}
        show={(value) => `f/${Number(value.toFixed(1))}`}
        onDraft={draft('aperture')}
        read={readAperture}
        onChange={(value) =>
          save('Aperture', {
            aperture:
              Math.abs(value - setup.aperture) < 0.11 ? along(apertures, setup.aperture, value) : value,
          })
        }
      />
      ,{' '}
      <LiveNumber
        label="Shutter"
        value={setup.shutter}
        step={1}
        min={0.1}
        show={(value) => `1/${Number(value.toFixed(1))} s`}
        onDraft={draft('shutter')}
        read={(text) => readShutter(text, perSecond(capture.rate))}
        onChange={(value) =>
          save('Shutter', {
            shutter: Math.abs(value - setup.shutter) < 1.01 ? along(shutters, setup.shutter, value) : value,
          })
        }
      />
      , ISO {plain('ISO', 'iso', 100, '')}, {plain('White balance', 'kelvin', 100, ' K')}, focused at{' '}
      <LiveLength
        label="Focus"
        value={setup.focus}
        onDraft={draft('focus')}
        onChange={(focus) => save('Focus', { focus })}
      />
      . It films{' '}
      <LiveChoice
        label="Capture size"
        value={size}
        options={
          sizeOptions.some(({ value }) => value === size)
            ? sizeOptions
            : [{ value: size, text: `${capture.width} × ${capture.height}` }, ...sizeOptions]
        }
        onChange={(value) => {
          const [width, height] = value.split('x').map(Number);
          void save('Capture size', { 'capture.width': width, 'capture.height': height });
        }}
      />{' '}
      at{' '}
      <LiveChoice
        label="Capture rate"
        value={String(rate)}
        options={captureRates.map((one, index) => ({ value: String(index), text: rateLabel(one) }))}
        onChange={(value) => save('Capture rate', { 'capture.rate': captureRates[Number(value)] })}
      />{' '}
      a second and{' '}
      <LiveNumber
        label="Data rate"
        value={capture.megabits}
        step={5}
        show={(value) => `${value} Mb/s`}
        onDraft={draft('capture.megabits')}
        onChange={(value) => save('Data rate', { 'capture.megabits': value })}
      />{' '}
      onto a {plain('Card', 'card', 8, ' GB')} card, with {plain('Battery', 'battery', 5, ' min')} of battery,
      from a{' '}
      <LiveChoice
        label="What it stands on"
        value={setup.rig}
        options={Object.entries(rigs).map(([value, { name }]) => ({ value, text: name }))}
        onChange={(rig) => save('Rig', { rig })}
      />
      ,{' '}
      <LiveChoice
        label="Inside or outside"
        value={setup.place}
        options={[
          { value: 'inside', text: 'inside' },
          { value: 'outside', text: 'outside' },
        ]}
        onChange={(place) => save('Place', { place })}
      />
      , as{' '}
      <LiveChoice
        label="One take or separate takes"
        value={setup.approach}
        options={[
          { value: 'separate', text: 'separate takes' },
          { value: 'unbroken', text: 'one unbroken take' },
        ]}
        onChange={(approach) => save('Approach', { approach })}
      />
      .
    </p>
  );
}
