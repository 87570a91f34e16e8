import { BufferTarget, Mp4OutputFormat, Output, VideoSampleSink, VideoSampleSource } from 'mediabunny';
import { takeParts } from '@/core/footage/take-parts';
import { straightSeam } from '@/core/recipes/clone/material';
import type { Point, Size } from '@/core/geometry/size';
import { fillFrame, groupOf, nodeOf, outlineMatte, running, type Matte } from '@/core/picture/node';
import { resizeYuv } from '@/core/picture/planes';
import { measureTake } from '@/media/measure-take';
import { openInput } from '@/media/open';
import { readPictures } from '@/media/pictures';
import { renderShot } from '@/media/render';

const rate = { num: 24000, den: 1001 };
const size = { width: 1920, height: 1080 };
const filmed4k = { width: 3840, height: 2160 };
const filmed720 = { width: 1280, height: 720 };
const bitrate = 16e6;

const fetchBlob = async (name: string) => (await fetch(`/${name}`)).blob();

async function timed(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
}

/** Decodes every picture to planes and shrinks it to proxy size; nothing else. */
async function decodeAndShrink(blob: Blob): Promise<void> {
  for await (const { picture } of readPictures(openInput(blob)))
    resizeYuv(picture, { width: 640, height: 360 });
}

/** Decodes two files and encodes the first one unchanged, with the library alone. */
async function decodeTwoEncodeOne(one: Blob, two: Blob): Promise<void> {
  const tracks = await Promise.all([one, two].map((blob) => openInput(blob).getPrimaryVideoTrack()));
  const [first, second] = tracks.map((track) =>
    new VideoSampleSink(track as NonNullable<typeof track>).samples(),
  );
  const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
  const source = new VideoSampleSource({
    codec: 'avc',
    bitrate,
    keyFrameInterval: 1,
    latencyMode: 'quality',
  });
  output.addVideoTrack(source);
  await output.start();
  for await (const sample of first) {
    (await second.next()).value?.close();
    await source.add(sample);
    sample.close();
  }
  await output.finalize();
}

/** Decodes two files side by side and drops their pictures, with the library alone. */
async function decodeTwo(one: Blob, two: Blob): Promise<void> {
  const tracks = await Promise.all([one, two].map((blob) => openInput(blob).getPrimaryVideoTrack()));
  const [first, second] = tracks.map((track) =>
    new VideoSampleSink(track as NonNullable<typeof track>).samples(),
  );
  for await (const sample of first) {
    (await second.next()).value?.close();
    sample.close();
  }
}

/** @param filmed size of both files; what is delivered is 1080p */
async function renderClone(one: Blob, two: Blob, frames: number, filmed: Size): Promise<void> {
  const take = (media: string, mattes: Matte[] = []) =>
    nodeOf({
      id: media,
      name: media,
      from: 0,
      until: frames,
      content: { is: 'media', media, size: filmed, time: running(0, 0, frames, rate) },
      transforms: [fillFrame(filmed, size)],
      mattes,
    });
  const ring = straightSeam.map(([x, y]): Point => [x * size.width, y * size.height]);
  const tree = groupOf('shot', size, { from: 0, until: frames }, [
    take('one'),
    take('two', [outlineMatte('parent', [{ frame: 0, rings: [ring] }], 12)]),
  ]);
  const times = Float64Array.from({ length: frames }, (_, index) => (index * rate.den) / rate.num);
  const sources = [
    { media: 'one', blob: one, times },
    { media: 'two', blob: two, times },
  ];
  const task = {
    tree,
    start: 0,
    end: frames,
    delivery: size,
    rate,
    container: 'mov' as const,
    bitrate,
    sources,
    song: null,
  };
  await renderShot({ sounds: [], ...task, id: 'bench' }, () => undefined);
}

/** Runs the comparisons a few times, alternating, and gives back seconds. */
async function run(rounds: number, frames: number) {
  const names = ['', '-4k', '-720'].flatMap((suffix) => [`one${suffix}.mp4`, `two${suffix}.mp4`]);
  const [one, two, large, other, small, next] = await Promise.all(names.map(fetchBlob));
  const out = {
    shrink: [] as number[],
    measure: [] as number[],
    copy: [] as number[],
    render: [] as number[],
    decode4k: [] as number[],
    render4k: [] as number[],
    render720: [] as number[],
  };
  const expected = (frames * rate.den) / rate.num;
  for (let round = 0; round < rounds; round++) {
    out.shrink.push(await timed(() => decodeAndShrink(one)));
    out.measure.push(await timed(() => measureTake(one, expected, takeParts, undefined, () => undefined)));
    out.copy.push(await timed(() => decodeTwoEncodeOne(one, two)));
    out.render.push(await timed(() => renderClone(one, two, frames, size)));
    out.decode4k.push(await timed(() => decodeTwo(large, other)));
    out.render4k.push(await timed(() => renderClone(large, other, frames, filmed4k)));
    out.render720.push(await timed(() => renderClone(small, next, frames, filmed720)));
  }
  return out;
}

Object.assign(globalThis, { run });
