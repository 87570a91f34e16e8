import { mapPoint, multiplyAffine, unmoved, type Affine } from '@/core/geometry/affine';
import type { Size } from '@/core/geometry/size';
import { valueAt } from '@/core/motion/keyframes';
import { FittedEdges } from '@/core/picture/fit/fitted-edges';
import { rasterMask } from '@/core/picture/mask';
import type { Content, Matte } from '@/core/picture/node';
import { ringsAt } from '@/core/picture/outline';
import type { YuvImage } from '@/core/picture/planes';
import type { Surfaces } from './surfaces';

/** A node's content as it lies in what is painted. */
export type Placed = {
  content: Content;
  /** instant of the film */
  at: number;
  /** the content's pixels to the parent's */
  matrix: Affine;
  /** pixels that are painted */
  size: Size;
  /** the picture that the content shows, where it is a file's and is there */
  picture: YuvImage | null;
};

type Outline = Extract<Matte['shape'], { is: 'outline' }>;

/** masks that stay on the card */
const keptMasks = 12;

/** Coverage of outlines on the card. */
export class Outlines {
  private readonly masks = new Map<string, WebGLTexture>();
  private readonly fitted = new FittedEdges();

  /** @param factor pixels that are painted for each of the tree's */
  constructor(
    private readonly surfaces: Surfaces,
    private readonly factor: number,
  ) {}

  /** @param feather in pixels that are painted; of no meaning where the outline is fitted */
  cover(
    shape: Outline,
    { space, inverted, feather }: Pick<Matte, 'space' | 'inverted'> & { feather: number },
    placed: Placed,
  ): WebGLTexture {
    const { content, at, matrix, size, picture } = placed;
    const map = (inner: Affine) => multiplyAffine([this.factor, 0, 0, this.factor, 0, 0], inner);
    const rings = ringsAt(shape, at);
    if (shape.fit && content.is === 'media' && picture) {
      const { media, size: own } = content;
      const fitting = { rings, fit: shape.fit, content: own, media, seconds: valueAt(content.time, at) };
      const key = JSON.stringify([fitting, map(matrix), size.width, size.height, inverted, picture.width]);
      return this.kept(key, size, () => {
        const cover = this.fitted.cover(fitting, picture, map(matrix), size);
        return inverted ? cover.map((value) => 255 - value) : cover;
      });
    }
    const way = map(space === 'content' ? matrix : unmoved);
    const painted = rings.map((ring) => ring.map((point) => mapPoint(way, point)));
    const soft = shape.fit ? 0 : feather;
    const key = JSON.stringify([painted, soft, size.width, size.height, inverted]);
    return this.kept(key, size, () => rasterMask(painted, soft, size, inverted).data);
  }

  private kept(key: string, size: Size, make: () => Uint8Array): WebGLTexture {
    const known = this.masks.get(key);
    if (known) return known;
    const made = this.surfaces.bytes(size, make());
    for (const [old, texture] of [...this.masks].slice(0, Math.max(0, this.masks.size - keptMasks + 1))) {
      this.surfaces.gl.deleteTexture(texture);
      this.masks.delete(old);
    }
    this.masks.set(key, made);
    return made;
  }

  /** Lets go of what it kept on the card. */
  close(): void {
    for (const texture of this.masks.values()) this.surfaces.gl.deleteTexture(texture);
    this.masks.clear();
  }
}
