import { parseMidi, writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import { refuse } from '../error';
import { metersOf, type BeatGrid } from '../time/grid';

const ticksPerBeat = 480;
const firstBeat = 'first beat of the song';
const firstBar = 'first bar of the song';

/**
 * The grid as a tempo map: one tempo a beat, each rounded so that every beat lies within half a microsecond of its
 * time. What lies before the first beat is filled with beats of its own, and a marker says where the song's begin.
 * @see Standard MIDI File 1.0, tempo and time signature
 */
export function writeMidiMap(grid: BeatGrid): Uint8Array {
  const { beats, firstDownbeat } = grid;
  const events: { tick: number; event: MidiEvent }[] = [];
  const put = (tick: number, event: Record<string, unknown>) =>
    events.push({ tick, event: { deltaTime: 0, meta: true, ...event } as MidiEvent });
  const signature = (tick: number, numerator: number) =>
    put(tick, { type: 'timeSignature', numerator, denominator: 4, metronome: 24, thirtyseconds: 8 });
  const lead = Math.round(beats[0] * 1e6) > 0 ? Math.max(1, Math.ceil(beats[0] / 4)) : 0;
  const pickup = lead + firstDownbeat;
  if (pickup > 0) signature(0, pickup);
  for (const meter of metersOf(grid)) signature((pickup + meter.at) * ticksPerBeat, meter.beatsPerBar);
  put(lead * ticksPerBeat, { type: 'marker', text: firstBeat });
  put(pickup * ticksPerBeat, { type: 'marker', text: firstBar });
  const times = [...Array.from({ length: lead }, (_, index) => (beats[0] * index) / lead), ...beats];
  let written = 0;
  for (let index = 0; index + 1 < times.length; index++) {
    const microseconds = Math.max(1, Math.round(times[index + 1] * 1e6) - written);
    put(index * ticksPerBeat, { type: 'setTempo', microsecondsPerBeat: microseconds });
    written += microseconds;
  }
  put((times.length - 1) * ticksPerBeat, { type: 'endOfTrack' });
  const rank = ({ event }: { event: MidiEvent }) => (event.type === 'endOfTrack' ? 1 : 0);
  events.sort((a, b) => a.tick - b.tick || rank(a) - rank(b));
  const track = events.map(({ tick, event }, index) => ({
    ...event,
    deltaTime: tick - (index > 0 ? events[index - 1].tick : 0),
  }));
  return Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat }, tracks: [track] }));
}

/**
 * The beats of a MIDI file: quarter notes, or shorter ones where a bar is not whole in quarters.
 * @returns `tempo` is false where the file names none and the standard's 120 beats a minute were taken
 * @throws CoreError `midi` where it is no MIDI file, counts in timecode, or holds no music
 */
export function readMidiMap(bytes: Uint8Array): { grid: BeatGrid; tempo: boolean } {
  let data: MidiData;
  try {
    if (!isWhole(bytes)) throw new Error('cut off');
    data = parseMidi(bytes);
  } catch {
    return refuse('midi', 'This is no Standard MIDI File, or it breaks off. Export it again.');
  }
  const perQuarter = data.header.ticksPerBeat;
  if (!perQuarter)
    return refuse(
      'midi',
      'This MIDI file counts in timecode, not in beats. Export it with ticks per quarter note.',
    );
  const tempos: { tick: number; micros: number }[] = [];
  const meters: { tick: number; quarters: number }[] = [];
  let last = 0;
  let begin = 0;
  let barAt: number | null = null;
  for (const track of data.tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'setTempo') tempos.push({ tick, micros: event.microsecondsPerBeat });
      if (event.type === 'timeSignature')
        meters.push({ tick, quarters: (4 * event.numerator) / event.denominator });
      if (event.type === 'marker' && event.text === firstBeat) begin = tick;
      if (event.type === 'marker' && event.text === firstBar) barAt = tick;
    }
    last = Math.max(last, tick);
  }
  tempos.sort((a, b) => a.tick - b.tick);
  meters.sort((a, b) => a.tick - b.tick);
  const unit = meters.some(({ quarters }) => !Number.isInteger(quarters)) ? 2 : 1;
  const step = perQuarter / unit;
  const timeOf = (tick: number) => {
    let [at, time, micros] = [0, 0, 500_000];
    for (const tempo of tempos) {
      if (tempo.tick > tick) break;
      time += ((tempo.tick - at) / perQuarter) * micros;
      [at, micros] = [tempo.tick, tempo.micros];
    }
    return (time + ((tick - at) / perQuarter) * micros) / 1e6;
  };
  const beats: number[] = [];
  for (let tick = begin; tick <= last + 1; tick += step) beats.push(timeOf(tick));
  if (beats.length < 2)
    return refuse(
      'midi',
      'This MIDI file holds no music to count beats in. Export it with its notes or tempo.',
    );
  return { grid: { beats, ...barsOf(meters, begin, barAt, step, unit) }, tempo: tempos.length > 0 };
}

/** Whether every chunk is as long as it says; the package reads on past a file's end. */
function isWhole(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  while (at + 8 <= bytes.byteLength) at += 8 + view.getUint32(at + 4);
  return at === bytes.byteLength;
}

/** Bars as time signatures say, counted from a given bar or from the first that begins with or after the beats. */
function barsOf(
  meters: { tick: number; quarters: number }[],
  begin: number,
  given: number | null,
  step: number,
  unit: number,
) {
  const length = (quarters: number) => Math.min(16, Math.max(1, Math.round(quarters * unit)));
  const before = meters.findLast(({ tick }) => tick <= begin) ?? { tick: 0, quarters: 4 };
  const bar = length(before.quarters) * step;
  const next = meters.find(({ tick }) => tick > begin)?.tick ?? Infinity;
  const onBar = before.tick + Math.ceil((begin - before.tick) / bar) * bar;
  const first = given ?? Math.min(next, onBar);
  const meterAtFirst = meters.findLast(({ tick }) => tick <= first) ?? before;
  const changes = meters
    .filter(({ tick }) => tick > first)
    .map(({ tick, quarters }) => ({ at: Math.round((tick - first) / step), beatsPerBar: length(quarters) }));
  const grid = {
    beatsPerBar: length(meterAtFirst.quarters),
    firstDownbeat: Math.max(0, Math.round((first - begin) / step)),
  };
  return changes.length > 0 ? { ...grid, changes } : grid;
}
