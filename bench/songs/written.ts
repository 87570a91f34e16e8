/** Beats and bars that a MIDI file was written with, and the same file at another tempo. */
import { parseMidi, writeMidi, type MidiData } from 'midi-file';

export type Written = {
  beats: number[];
  /** beats a bar that its signature says at first */
  beatsPerBar: number;
  /** whether its signature counts quarters all along, so that a quarter note is a beat */
  inQuarters: boolean;
  /** the share of notes that begin on a quarter or a third of a beat; little where nobody played to the grid */
  onGrid: number;
};

/** What a MIDI file's own tempo map and signatures say. */
export function readWritten(midi: Uint8Array, seconds: number): Written {
  const { header, tracks } = parseMidi(midi);
  const perQuarter = header.ticksPerBeat as number;
  const all = tracks.flatMap((track) => {
    let tick = 0;
    return track.map((event) => ({ tick: (tick += event.deltaTime), event }));
  });
  const tempos = all.flatMap(({ tick, event }) =>
    event.type === 'setTempo' ? [{ tick, micros: event.microsecondsPerBeat }] : [],
  );
  tempos.sort((a, b) => a.tick - b.tick);
  const signatures = all.flatMap(({ event }) => (event.type === 'timeSignature' ? [event] : []));
  const starts = all.flatMap(({ tick, event }) =>
    event.type === 'noteOn' && event.velocity > 0 ? [tick] : [],
  );
  const near = starts.filter((tick) => {
    const place = (tick / perQuarter) % 1;
    return [0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1].some((one) => Math.abs(one - place) < 0.03);
  });
  const beats: number[] = [];
  let [tick, time, micros, next] = [0, 0, 500_000, 0];
  for (let beat = 0; time < seconds; beat++) {
    for (; next < tempos.length && tempos[next].tick <= beat * perQuarter; next++) {
      time += ((tempos[next].tick - tick) / perQuarter) * (micros / 1e6);
      [tick, micros] = [tempos[next].tick, tempos[next].micros];
    }
    time += ((beat * perQuarter - tick) / perQuarter) * (micros / 1e6);
    tick = beat * perQuarter;
    if (time < seconds) beats.push(time);
  }
  return {
    beats,
    beatsPerBar: signatures[0]?.numerator ?? 4,
    inQuarters: signatures.every(({ denominator }) => denominator === 4),
    onGrid: near.length / Math.max(1, starts.length),
  };
}

/** Takes the sound from whatever still sounds. */
const silence = Array.from(
  { length: 16 },
  (_, channel) => ({ deltaTime: 0, type: 'controller', channel, controllerType: 120, value: 0 }) as const,
);

/** The same music up to a number of quarters, faster or slower and on another kit of drums. */
export function replayed(midi: Uint8Array, faster: number, kit: number | null, until: number): Uint8Array {
  const data: MidiData = parseMidi(midi);
  const last = until * (data.header.ticksPerBeat as number);
  data.tracks = data.tracks.map((track) => {
    let tick = 0;
    const heard = track.filter((event) => (tick += event.deltaTime) < last && event.type !== 'endOfTrack');
    return [...heard, ...silence, { deltaTime: 0, meta: true, type: 'endOfTrack' }];
  });
  const drumChannel = 9;
  let told = false;
  for (const track of data.tracks)
    for (const event of track) {
      if (event.type === 'setTempo') {
        told = true;
        event.microsecondsPerBeat = Math.round(event.microsecondsPerBeat / faster);
      }
      if (kit !== null && event.type === 'programChange' && event.channel === drumChannel)
        event.programNumber = kit;
    }
  if (!told)
    data.tracks[0].unshift({
      deltaTime: 0,
      meta: true,
      type: 'setTempo',
      microsecondsPerBeat: Math.round(500_000 / faster),
    });
  return Uint8Array.from(writeMidi(data));
}
