import { transfer, wrap } from 'comlink';
import {
  BufferTarget,
  Mp4OutputFormat,
  Output,
  VideoSampleSink,
  VideoSampleSource,
  type VideoSample,
} from 'mediabunny';
import { cutOut, plateMatte } from '@/core/footage/cutout';
import { takeParts } from '@/core/footage/take-parts';
import { straightSeam } from '@/core/recipes/clone/material';
import type { Point, Size } from '@/core/geometry/size';
import { pictureTimes } from '@/core/footage/picture-times';
import type { Moment, Project } from '@/core/model/records';
import { recipeOf } from '@/core/recipes/built';
import { inFile, reachOfEdge } from '@/core/recipes/cutouts';
import { films, type MomentKind } from '@/core/recipes/films';
import type { Material } from '@/core/recipes/material';
import type { Recipe } from '@/core/recipes/recipe';
import { regularGrid } from '@/core/time/grid';
import {
  fillFrame,
  groupOf,
  nodeOf,
  outlineMatte,
  running,
  type Matte,
  type Node,
} from '@/core/picture/node';
import type { RgbaImage } from '@/core/picture/image';
import { fitEdge } from '@/core/picture/fit/fit-edge';
import { resizeYuv, rgbaToYuv, yuvToRgba } from '@/core/picture/planes';
import { cutPeople } from '@/media/cut-people';
import { Footage } from '@/media/footage';
import { measureTake } from '@/media/measure-take';
import { openInput } from '@/media/open';
import type { Beside } from '@/media/people';
import { readPictures } from '@/media/pictures';
import { renderShot } from '@/media/render';
import type { PeopleApi } from '@/workers/people.worker';

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

/** The size in which people and joins are looked for. */
const analysed = { width: 480, height: 270 };

/** Decodes every picture to planes; nothing else. */
async function decodeAlone(blob: Blob): Promise<void> {
  for await (const { picture } of readPictures(openInput(blob))) picture.y.at(0);
}

const people = wrap<PeopleApi>(new Worker('/people.worker.js'));
const handed = <Image extends { data: { buffer: ArrayBufferLike } }>(image: Image): Image =>
  transfer(image, [image.data.buffer as ArrayBuffer]);
const peopleBeside: Beside = {
  find: (picture) => people.peopleIn(handed(picture)),
  cut: (luma, matte, differs) => people.cutLikely(handed(luma), handed(matte), differs),
};

/** Finds people in every picture, and cuts them out as the pictures agree on it. */
async function cutOutPeople(blob: Blob, frames: number): Promise<void> {
  const times = Float64Array.from({ length: frames }, (_, index) => (index * rate.den) / rate.num);
  const footage = new Footage([{ media: 'person', blob, times }]);
  const figures = await cutPeople(
    'person',
    [...times],
    footage,
    () => undefined,
    peopleBeside,
    'now and then',
  );
  await footage.close();
  if (figures.some(({ rings }) => rings.length === 0)) throw new Error('Nobody is found in a picture.');
}

/** Every picture, small and in red, green and blue. */
async function analysedPictures(blob: Blob): Promise<RgbaImage[]> {
  const pictures: RgbaImage[] = [];
  for await (const { picture } of readPictures(openInput(blob)))
    pictures.push(yuvToRgba(resizeYuv(picture, analysed)));
  return pictures;
}

/**
 * Decodes files side by side, with the library alone, and encodes the first one unchanged.
 * @param frames pictures of each; one after the other where `inTurn` is set, which encodes all of them
 */
async function decodeAndEncode(blobs: readonly Blob[], frames: number, inTurn = false): Promise<void> {
  const tracks = await Promise.all(blobs.map((blob) => openInput(blob).getPrimaryVideoTrack()));
  const readers = tracks.map((track) => new VideoSampleSink(track as NonNullable<typeof track>).samples());
  const output = new Output({ format: new Mp4OutputFormat(), target: new BufferTarget() });
  const source = new VideoSampleSource({
    codec: 'avc',
    bitrate,
    keyFrameInterval: 1,
    latencyMode: 'quality',
  });
  output.addVideoTrack(source);
  await output.start();
  let [pictures, time] = [0, 0];
  const encode = async (sample: VideoSample) => {
    sample.setTimestamp(time);
    time += rate.den / rate.num;
    await source.add(sample);
  };
  for (const [index, reader] of readers.entries()) {
    if (!inTurn && index > 0) break;
    for (pictures = 0; pictures < frames; pictures++) {
      const sample = (await reader.next()).value;
      for (const other of inTurn ? [] : readers.slice(1)) (await other.next()).value?.close();
      if (!sample) break;
      await encode(sample);
      sample.close();
    }
    await reader.return();
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
  await render(tree, { one, two }, frames);
}

const startsOf = (frames: number) =>
  Float64Array.from({ length: frames }, (_, index) => (index * rate.den) / rate.num);

async function render(tree: Node, files: Record<string, Blob>, frames: number): Promise<void> {
  const times = startsOf(frames);
  const task = {
    tree,
    start: tree.from,
    end: tree.until,
    delivery: size,
    rate,
    container: 'mov' as const,
    bitrate,
    sources: Object.entries(files).map(([media, blob]) => ({ media, blob, times })),
    song: null,
  };
  await renderShot({ sounds: [], ...task, id: 'bench' }, () => undefined);
}

/** A moment of a kind with the settings that a new one has, built of takes as long as it; lands in its middle. */
function builtMoment(
  kind: MomentKind,
  frames: number,
  slots: Record<string, string>,
  settings: object,
): Node {
  const recipe = recipeOf({ recipe: kind } as Moment) as Recipe;
  // Six frames to a beat.
  const grid = regularGrid((10 * rate.num) / rate.den, 0, 120);
  const project = { ...size, rate } as Project;
  const moment = {
    id: kind,
    recipe: kind,
    start: 0,
    lands: frames / 12,
    end: frames / 6,
    settings: { ...films[kind].start, ...settings },
    slots: Object.fromEntries(Object.entries(slots).map(([slot, take]) => [slot, { take }])),
  } as unknown as Moment;
  const takes = Object.fromEntries(
    Object.entries(slots).map(([slot, media]) => [
      slot,
      {
        take: { id: media, media, name: media, steady: false, match: false },
        measure: { size, times: pictureTimes(startsOf(frames)) },
        comparison: null,
      },
    ]),
  ) as unknown as Material['takes'];
  return recipe.build(moment, { grid, project }, { takes, solved: {} });
}

/** Runs the comparisons a few times, alternating, and gives back seconds. */
async function run(rounds: number, frames: number) {
  const names = ['', '-4k', '-720'].flatMap((suffix) => [`one${suffix}.mp4`, `two${suffix}.mp4`]);
  const [plate, person, one, two, large, other, small, next] = await Promise.all(
    ['plate.mp4', 'person.mp4', ...names].map(fetchBlob),
  );
  const out = {
    shrink: [] as number[],
    decode: [] as number[],
    mattes: [] as number[],
    edges: [] as number[],
    decodePerson: [] as number[],
    people: [] as number[],
    watch: [] as number[],
    measure: [] as number[],
    copy: [] as number[],
    render: [] as number[],
    decode4k: [] as number[],
    render4k: [] as number[],
    render720: [] as number[],
    inTurn: [] as number[],
    whip: [] as number[],
    passed: [] as number[],
    ramp: [] as number[],
    four: [] as number[],
    panels: [] as number[],
  };
  const half = frames / 2;
  const whip = builtMoment('built-whip', frames, { out: 'one', in: 'two' }, {});
  const ramp = builtMoment('speed-ramp', frames, { pass: 'one' }, { poses: 1, instants: { 1: 1.5 } });
  const panels = builtMoment(
    'split-screen',
    frames,
    { 'panel-1': 'one', 'panel-2': 'two', 'panel-3': 'one', 'panel-4': 'two' },
    { panels: 4 },
  );
  const files = { one, two };
  const analysers = takeParts.filter((part) => part !== 'pictures');
  const expected = (frames * rate.den) / rate.num;
  const taken = await analysedPictures(one);
  const [empty] = await analysedPictures(plate);
  const cut = taken.slice(0, 12).map((picture) => ({
    large: resizeYuv(rgbaToYuv(picture), size),
    rings: inFile(cutOut(picture, empty).rings, size),
  }));
  const fitAll = () =>
    taken.forEach((_, index) => {
      const { large, rings } = cut[index % cut.length];
      fitEdge(large, rings, reachOfEdge(size, 'person'));
    });
  for (let round = 0; round < rounds; round++) {
    out.decode.push(await timed(() => decodeAlone(one)));
    out.mattes.push(await timed(async () => taken.forEach((picture) => plateMatte(empty, picture))));
    out.edges.push(await timed(async () => fitAll()));
    out.decodePerson.push(await timed(() => decodeAlone(person)));
    out.people.push(await timed(() => cutOutPeople(person, frames)));
    out.shrink.push(await timed(() => decodeAndShrink(one)));
    out.watch.push(await timed(() => measureTake(one, expected, analysers, undefined, () => undefined)));
    out.measure.push(await timed(() => measureTake(one, expected, takeParts, undefined, () => undefined)));
    out.copy.push(await timed(() => decodeAndEncode([one, two], frames)));
    out.render.push(await timed(() => renderClone(one, two, frames, size)));
    out.decode4k.push(await timed(() => decodeTwo(large, other)));
    out.render4k.push(await timed(() => renderClone(large, other, frames, filmed4k)));
    out.render720.push(await timed(() => renderClone(small, next, frames, filmed720)));
    out.inTurn.push(await timed(() => decodeAndEncode([one, two], half, true)));
    out.whip.push(await timed(() => render(whip, files, frames)));
    out.passed.push(await timed(() => decodeAndEncode([one], frames)));
    out.ramp.push(await timed(() => render(ramp, files, frames)));
    out.four.push(await timed(() => decodeAndEncode([one, two, one, two], frames)));
    out.panels.push(await timed(() => render(panels, files, frames)));
  }
  return out;
}

Object.assign(globalThis, { run });
