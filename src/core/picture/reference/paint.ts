import { refuse } from '../../error';
import type { Affine } from '../../geometry/affine';
import type { Size } from '../../geometry/size';
import { valueAt } from '../../motion/keyframes';
import { grainsOf } from '../grains';
import { checkPicture, type RgbaImage } from '../image';
import { FittedEdges } from '../fit/fitted-edges';
import { matrixAt, nodesIn, showsAt, type Fit, type Media, type Node, type Rings } from '../node';
import { rgbaToYuv } from '../planes';
import { instantsOf } from '../shutter';
import { withoutSpill } from '../spill';
import { coverOf } from './cover';
import { withEffect } from './effects';
import { drawn } from './sample';
import { addTo, clear, coverBy, filled, layOver, opaque, surfaceOf, type Surface } from './surface';

/** The picture of a file at some seconds, or the one between two; a raster's coverage is its luma. Null where the file is missing. */
type PictureOf = (media: string, seconds: number, between?: 'moves') => RgbaImage | null;

/** How a file's picture shows. */
type How = Pick<Media, 'between' | 'without'>;

/** One picture being painted: all of its nodes, the frame, and the nodes whose coverage is being asked for. */
type Scene = { tree: Node; frame: number; pictureOf: PictureOf; asked: readonly string[] };

function surfaceAt({ pictureOf }: Scene, media: string, seconds: number, how: How = {}): Surface | null {
  const picture = pictureOf(media, seconds, how.between);
  if (picture) checkPicture(picture, 4);
  return picture && surfaceOf(how.without ? withoutSpill(picture, how.without) : picture);
}

function noise(seed: number, grain: number, frame: number, size: Size): Surface {
  const out = clear(size);
  const { width, values } = grainsOf(seed, grain, frame, size);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const value = values[Math.floor(y / grain) * width + Math.floor(x / grain)];
      out.data.set([value, value, value, 1], (y * size.width + x) * 4);
    }
  }
  return out;
}

/** What a node's content looks like before it is placed; null where its file is missing. */
function contentOf(node: Node, at: number, scene: Scene): { surface: Surface; size: Size } | null {
  const { content } = node;
  const given = (surface: Surface | null, size: Size) => surface && { surface, size };
  switch (content.is) {
    case 'media':
      return given(surfaceAt(scene, content.media, valueAt(content.time, at), content), content.size);
    case 'coverage': {
      const raster = surfaceAt(scene, content.media, 0);
      for (let pixel = 0; raster && pixel < raster.data.length; pixel += 4) {
        const cover = raster.data[pixel];
        raster.data.set([...content.rgb.map((value) => (value / 255) * cover), cover], pixel);
      }
      return given(raster, content.size);
    }
    case 'group': {
      const out = clear(content.size);
      for (const child of content.nodes) {
        const painted = paintNode(child, at, content.size, scene);
        if (painted) layOver(out, painted, child.blend);
      }
      return given(out, content.size);
    }
    case 'copies': {
      const out = clear(content.size);
      for (const { later, opacity } of content.copies) {
        const then = { ...scene, frame: scene.frame + later };
        const painted = paintNode(content.node, at + later, content.size, then);
        if (!painted) continue;
        coverBy(painted, opacity);
        layOver(out, painted, content.node.blend);
      }
      return given(out, content.size);
    }
    case 'colour':
    case 'noise':
      return null;
  }
}

function placed(node: Node, at: number, matrix: Affine, size: Size, scene: Scene): Surface | null {
  const { content } = node;
  if (content.is === 'colour')
    return filled(
      size,
      content.rgb.map((value) => value / 255),
    );
  if (content.is === 'noise') return noise(content.seed, content.grain, scene.frame, size);
  const given = contentOf(node, at, scene);
  return given && drawn(given.surface, given.size, matrix, node, size);
}

/** A node's coverage for another's matte. */
function coverageOf(id: string, at: number, size: Size, scene: Scene): Float32Array {
  if (scene.asked.includes(id))
    refuse('matte.loop', 'Two masks ask for each other. Choose another shape for one of them.');
  const node = nodesIn(scene.tree).find((one) => one.id === id);
  const painted = node && paintNode(node, at, size, { ...scene, asked: [...scene.asked, id] });
  return Float32Array.from(
    { length: size.width * size.height },
    (_, pixel) => painted?.data[pixel * 4 + 3] ?? 0,
  );
}

/** Coverage of an outline that is fitted to the picture that a node shows; null where it shows no file. */
function fittedCover(
  { content }: Node,
  at: number,
  outline: { rings: Rings; fit: Fit },
  matrix: Affine,
  size: Size,
  { pictureOf }: Scene,
): Float32Array | null {
  if (content.is !== 'media') return null;
  const seconds = valueAt(content.time, at);
  const picture = pictureOf(content.media, seconds, content.between);
  if (!picture) return null;
  const fitting = { ...outline, content: content.size, media: content.media, seconds };
  const cover = new FittedEdges().cover(fitting, rgbaToYuv(picture), matrix, size);
  return Float32Array.from(cover, (value) => value / 255);
}

function paintInstant(node: Node, at: number, size: Size, scene: Scene): Surface | null {
  const matrix = matrixAt(node, at);
  const first = placed(node, at, matrix, size, scene);
  if (!first) return null;
  const surface = node.effects.reduce((before, effect) => withEffect(before, effect, at), first);
  const shapes = {
    raster: (media: string, seconds: number) => surfaceAt(scene, media, seconds),
    node: (id: string) => coverageOf(id, at, size, scene),
    fitted: (rings: Rings, fit: Fit) => fittedCover(node, at, { rings, fit }, matrix, size, scene),
  };
  for (const matte of node.mattes) coverBy(surface, coverOf(matte, at, matrix, size, shapes));
  coverBy(surface, Math.min(1, Math.max(0, valueAt(node.opacity, at))));
  return surface;
}

/**
 * A node in its parent's pixels. Whether it shows is decided by the whole frame, so that a cut stays sharp; how it
 * moves, by the instant.
 */
function paintNode(node: Node, at: number, size: Size, scene: Scene): Surface | null {
  if (!showsAt(node, scene.frame)) return null;
  const instants = instantsOf(node, scene.frame, at);
  if (instants.length === 1) return paintInstant(node, instants[0], size, scene);
  const mean = clear(size);
  for (const instant of instants) {
    const painted = paintInstant(node, instant, size, scene);
    if (painted) addTo(mean, painted, 1 / instants.length);
  }
  return mean;
}

/**
 * The reference painter: everything that nodes can say, slowly and exactly. Other painters are compared with it.
 * @param frame of the film
 * @param size pixels of the picture that the tree lies in
 * @param pictureOf full-range pictures; one smaller than its node's size is a proxy
 * @returns an opaque picture, black where nothing shows
 * @throws CoreError `matte.loop` where nodes ask for each other's coverage; `picture-data` for a broken picture
 * @see W3C Compositing and Blending Level 1
 */
export function paintFrame(tree: Node, frame: number, size: Size, pictureOf: PictureOf): RgbaImage {
  const out = filled(size, [0, 0, 0]);
  const painted = paintNode(tree, frame, size, { tree, frame, pictureOf, asked: [] });
  if (painted) layOver(out, painted, tree.blend);
  return opaque(out);
}
