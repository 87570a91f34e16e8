'use client';
import { useEffect, useState } from 'react';
import { useServices } from './bench-context';
import { LiveChoice } from './live-choice';

const speeds = ['1', '0.75', '0.5', '0.25'].map((value) => ({ value, text: `${Number(value) * 100} %` }));

/** How fast the song plays while this is on the screen; it keeps its pitch. */
export function PlaySpeed() {
  const { player } = useServices();
  const [speed, setSpeed] = useState('1');
  useEffect(() => () => player.setSpeed(1), [player]);
  return (
    <LiveChoice
      label="Speed"
      value={speed}
      options={speeds}
      onChange={(value) => {
        setSpeed(value);
        player.setSpeed(Number(value));
      }}
    />
  );
}
