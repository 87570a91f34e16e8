import type { RgbaImage } from '../../../picture/image';
import { smoothNoise } from '../../../practice/noise';
import { seeded } from '../../../random';
import type { FilmEvent } from '../cut-finder';

const size = { width: 128, height: 72 };
/** a place is wider than what is seen of it, so that a camera can turn */
const place = { width: 720, height: 150 };

type Scene = {
  picture: Float32Array;
  /** where the camera looks at a frame of the shot: pixels, and how far it moves within the frame */
  camera: (frame: number) => { x: number; y: number; blur: number };
  performers: { x: number; speed: number; size: number; colour: number[] }[];
  light: (frame: number) => number;
};

/** A place and a camera in it: it stands, drifts, shakes in the hand, or whips once. */
function sceneOf(next: () => number, length: number): Scene {
  const [coarse, fine] = [smoothNoise(Math.floor(next() * 1e6)), smoothNoise(Math.floor(next() * 1e6))];
  const tint = [0, 1, 2].map(() => 40 + 150 * next());
  const picture = new Float32Array(place.width * place.height * 3);
  const grain = 6 + 14 * next();
  for (let y = 0, at = 0; y < place.height; y++)
    for (let x = 0; x < place.width; x++)
      for (let channel = 0; channel < 3; channel++, at++)
        picture[at] =
          tint[channel] +
          60 * coarse(x / 34 + 9 * channel, y / 34) +
          28 * fine(x / grain + channel, y / grain);
  const way = next();
  const [x0, y0, pace] = [40 + 250 * next(), 20 + 30 * next(), 2 * next() - 1];
  const whip = { at: Math.floor(length * (0.3 + 0.4 * next())), far: 60 + 160 * next() };
  const camera = (frame: number) => {
    if (way < 0.3) return { x: x0, y: y0, blur: 0 };
    if (way < 0.5) return { x: x0 + 1.5 * pace * frame, y: y0, blur: 0 };
    if (way < 0.75 || length < 24)
      return { x: x0 + 4 * Math.sin(frame / 3 + pace), y: y0 + 3 * Math.sin(frame / 4.3), blur: 0 };
    const share = Math.min(1, Math.max(0, (frame - whip.at) / 8));
    const [now, then] = [share, Math.max(0, share - 1 / 8)].map((t) => t * t * (3 - 2 * t));
    return { x: x0 + whip.far * now, y: y0, blur: whip.far * (now - then) };
  };
  return {
    picture,
    camera,
    performers: Array.from({ length: Math.floor(3 * next()) }, () => ({
      x: size.width * next(),
      speed: 5 * next() - 2.5,
      size: 8 + 22 * next(),
      colour: [0, 1, 2].map(() => 255 * next()),
    })),
    light: next() < 0.2 ? (frame) => 1 + 0.12 * Math.sin(frame * 1.7) : () => 1,
  };
}

function drawn({ picture, camera, performers, light }: Scene, frame: number): Float32Array {
  const { x: left, y: top, blur } = camera(frame);
  const out = new Float32Array(size.width * size.height * 3);
  const steps = Math.max(1, Math.min(12, Math.round(blur / 3)));
  const gain = light(frame);
  for (let y = 0, to = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++)
      for (let channel = 0; channel < 3; channel++, to++) {
        let sum = 0;
        for (let step = 0; step < steps; step++) {
          const place0 = left + x - (blur * step) / steps;
          const column = Math.max(0, Math.min(place.width - 2, Math.floor(place0)));
          const row = Math.max(0, Math.min(place.height - 1, Math.round(top + y)));
          const share = Math.min(1, Math.max(0, place0 - column));
          const at = (row * place.width + column) * 3 + channel;
          sum += picture[at] * (1 - share) + picture[at + 3] * share;
        }
        out[to] = (gain * sum) / steps;
      }
  for (const { x: start, speed, size: half, colour } of performers) {
    // They leave the picture wholly before they come in on its other side.
    const way = size.width + 2 * half;
    const middle = ((((start + speed * frame) % way) + way) % way) - half;
    for (let y = size.height - Math.round(2.2 * half); y < size.height; y++)
      for (
        let x = Math.max(0, Math.round(middle - half / 2));
        x < Math.min(size.width, middle + half / 2);
        x++
      )
        if (y >= 0)
          for (let channel = 0; channel < 3; channel++)
            out[(y * size.width + x) * 3 + channel] = colour[channel];
  }
  return out;
}

/** A film of some shots, with what joins them: cuts, dissolves, cuts after four frames, and flashes within shots. */
export function filmOf(seed: number, shots = 14): { frames: RgbaImage[]; events: FilmEvent[] } {
  const next = seeded(seed);
  const events: FilmEvent[] = [];
  const pictures: Float32Array[] = [];
  let before = 0;
  for (let shot = 0; shot < shots; shot++) {
    const length = next() < 0.3 ? 4 + Math.floor(6 * next()) : 16 + Math.floor(50 * next());
    const over = before > 34 && length > 30 && next() < 0.4 ? 8 + Math.floor(16 * next()) : 0;
    before = length;
    const scene = sceneOf(next, length + over);
    const from = pictures.length - Math.min(over, pictures.length);
    const mixed = pictures.length - from;
    if (shot > 0)
      events.push(
        mixed > 0
          ? { frame: from + Math.round(mixed / 2), kind: 'dissolve', strength: 1 }
          : { frame: from, kind: 'cut', strength: 1 },
      );
    for (let frame = 0; frame < length + mixed; frame++) {
      const picture = drawn(scene, frame);
      if (frame >= mixed) pictures.push(picture);
      else {
        const share = (frame + 1) / (mixed + 1);
        pictures[from + frame] = pictures[from + frame].map(
          (value, at) => value + share * (picture[at] - value),
        );
      }
    }
    if (length > 24 && next() < 0.35) {
      const at = from + mixed + 8 + Math.floor((length - 20) * next());
      const lasts = 1 + Math.floor(3 * next());
      const bright = 70 + 160 * next();
      for (let frame = at; frame < at + lasts; frame++)
        pictures[frame] = pictures[frame].map((value) => value + bright);
      events.push({ frame: at, kind: 'flash', strength: 1 });
    }
  }
  const frames = pictures.map((picture) => {
    const data = new Uint8ClampedArray(size.width * size.height * 4);
    for (let pixel = 0; pixel < size.width * size.height; pixel++) {
      for (let channel = 0; channel < 3; channel++)
        data[4 * pixel + channel] = picture[3 * pixel + channel] + (next() + next() + next() - 1.5) * 6;
      data[4 * pixel + 3] = 255;
    }
    return { ...size, data };
  });
  return { frames, events: events.sort((one, other) => one.frame - other.frame) };
}
