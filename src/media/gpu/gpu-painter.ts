import { refuse } from '@/core/error';
import { invertAffine, multiplyAffine, unmoved, type Affine } from '@/core/geometry/affine';
import type { Size } from '@/core/geometry/size';
import { valueAt } from '@/core/motion/keyframes';
import { blendModes } from '@/core/picture/blend';
import {
  matrixAt,
  nodesIn,
  showsAt,
  type Effect,
  type Matte,
  type Media,
  type Node,
} from '@/core/picture/node';
import { isFitted } from '@/core/picture/outline';
import { bt709, blankYuv, chromaSide, factorsOf, type YuvImage } from '@/core/picture/planes';
import { grainsOf } from '@/core/picture/grains';
import { instantsOf } from '@/core/picture/shutter';
import { CleanPictures } from '@/core/picture/spill';
import { passesOf, type Pass } from './effect-passes';
import { Outlines, type Placed } from './outlines';
import { Surfaces, type GpuSurface } from './surfaces';

/** The picture of a file at some seconds; null where the file is missing. */
export type YuvOf = (media: string, seconds: number, between?: 'moves') => YuvImage | null;

/** One frame being painted, as in the reference painter. */
type Scene = { tree: Node; frame: number; pictureOf: YuvOf; asked: readonly string[] };

const modes = Object.keys(blendModes);
const edgeNumbers = { empty: 0, mirrored: 1, repeated: 2 } as const;

/**
 * Paints frames on the graphics card: everything that nodes can say, at any size. The reference painter says what is
 * right; this one follows it step by step.
 */
export class GpuPainter {
  private readonly pictures = new Map<YuvImage, GpuSurface>();
  private readonly clean = new CleanPictures();
  private readonly outlines: Outlines;
  private readonly factor: number;

  /**
   * @param delivery the size that trees count in
   * @param size the size to paint at
   */
  constructor(
    private readonly surfaces: Surfaces,
    delivery: Size,
    private readonly size: Size = delivery,
  ) {
    this.factor = size.width / delivery.width;
    this.outlines = new Outlines(surfaces, this.factor);
  }

  /**
   * One frame of the film; black where nothing shows.
   * @returns planes of its own; null where the card was lost on the way
   * @throws CoreError `matte.loop` where nodes ask for each other's coverage
   */
  paint(tree: Node, frame: number, pictureOf: YuvOf): YuvImage | null {
    const { surfaces } = this;
    const out = this.blank(this.size);
    surfaces.paint(out, 'fill', { colour: [0, 0, 0, 1] });
    const painted = this.paintNode(tree, frame, this.size, { tree, frame, pictureOf, asked: [] });
    const whole = painted ? this.layOver(out, painted, tree) : out;
    const planes = this.planesOf(whole);
    surfaces.giveBack(whole);
    for (const surface of this.pictures.values()) surfaces.giveBack(surface);
    this.pictures.clear();
    this.clean.clear();
    return surfaces.lost ? null : planes;
  }

  private blank(size: Size): GpuSurface {
    return this.surfaces.clear(size);
  }

  /** A surface that takes the place of another one, which is given back. */
  private instead(
    before: GpuSurface,
    shader: Parameters<Surfaces['paint']>[1],
    uniforms: Parameters<Surfaces['paint']>[2],
  ): GpuSurface {
    const out = this.blank(before);
    this.surfaces.paint(out, shader, { source: before.texture, ...uniforms });
    this.surfaces.giveBack(before);
    return out;
  }

  /** Lays one over another, gives it back, and returns what holds both. */
  private layOver(back: GpuSurface, front: GpuSurface, { blend }: Pick<Node, 'blend'>): GpuSurface {
    const { surfaces } = this;
    let out = back;
    if (blend === 'normal') surfaces.paint(back, 'copy', { source: front.texture }, 'over');
    else {
      out = this.blank(back);
      const uniforms = { back: back.texture, front: front.texture, mode: modes.indexOf(blend) };
      surfaces.paint(out, 'blend', uniforms);
      surfaces.giveBack(back);
    }
    surfaces.giveBack(front);
    return out;
  }

  /** A file's picture in colours; kept until the frame is done. */
  private pictureOf(
    { pictureOf }: Scene,
    media: string,
    seconds: number,
    { between, without }: Pick<Media, 'between' | 'without'> = {},
  ): GpuSurface | null {
    const given = pictureOf(media, seconds, between);
    if (!given) return null;
    const picture = this.clean.of(given, without);
    const kept = this.pictures.get(picture);
    if (kept) return kept;
    const { surfaces } = this;
    const { gl } = surfaces;
    const small = { width: chromaSide(picture.width), height: chromaSide(picture.height) };
    const f = factorsOf(picture);
    const planes = {
      y: surfaces.bytes(picture, picture.y),
      u: surfaces.bytes(small, picture.u),
      v: surfaces.bytes(small, picture.v),
    };
    const out = this.blank(picture);
    surfaces.paint(out, 'fromYuv', {
      ...planes,
      luma: [f.black, f.luma],
      chroma: [f.redFromV, f.greenFromU, f.greenFromV, f.blueFromU],
    });
    for (const plane of Object.values(planes)) gl.deleteTexture(plane);
    this.pictures.set(picture, out);
    return out;
  }

  private scaled({ width, height }: Size): Size {
    const side = (value: number) => Math.max(1, Math.round(value * this.factor));
    return { width: side(width), height: side(height) };
  }

  /** What a node's content looks like before it is placed, and whether it may be painted over; null where it is missing. */
  private contentOf(
    node: Node,
    at: number,
    scene: Scene,
  ): { surface: GpuSurface; own: boolean; size: Size } | null {
    const { content } = node;
    switch (content.is) {
      case 'media': {
        const surface = this.pictureOf(scene, content.media, valueAt(content.time, at), content);
        return surface && { surface, own: false, size: content.size };
      }
      case 'coverage': {
        const raster = this.pictureOf(scene, content.media, 0);
        if (!raster) return null;
        const surface = this.blank(raster);
        const colour = content.rgb.map((value) => value / 255);
        this.surfaces.paint(surface, 'tinted', { source: raster.texture, colour });
        return { surface, own: true, size: content.size };
      }
      case 'group': {
        const size = this.scaled(content.size);
        let out = this.blank(size);
        for (const child of content.nodes) {
          const painted = this.paintNode(child, at, size, scene);
          if (painted) out = this.layOver(out, painted, child);
        }
        return { surface: out, own: true, size: content.size };
      }
      case 'copies': {
        const size = this.scaled(content.size);
        let out = this.blank(size);
        for (const { later, opacity } of content.copies) {
          const then = { ...scene, frame: scene.frame + later };
          const painted = this.paintNode(content.node, at + later, size, then);
          if (!painted) continue;
          this.surfaces.paint(painted, 'fill', { colour: [0, 0, 0, opacity] }, 'cover');
          out = this.layOver(out, painted, content.node);
        }
        return { surface: out, own: true, size: content.size };
      }
      case 'colour':
      case 'noise':
        return null;
    }
  }

  /** Draws a surface through a map into a new one. @param matrix pixels of a picture of `size` to the parent's */
  private drawn(
    source: GpuSurface,
    size: Size,
    matrix: Affine,
    node: Pick<Node, 'crop' | 'edges' | 'grade'>,
    into: Size,
  ): GpuSurface {
    const out = this.blank(into);
    const [sx, sy] = [source.width / size.width, source.height / size.height];
    const part = node.crop ?? { left: 0, top: 0, right: size.width, bottom: size.height };
    const box = [
      Math.max(0, Math.round(part.left * sx)),
      Math.max(0, Math.round(part.top * sy)),
      Math.min(source.width, Math.round(part.right * sx)),
      Math.min(source.height, Math.round(part.bottom * sy)),
    ];
    if (box[2] <= box[0] || box[3] <= box[1]) return out;
    const { factor } = this;
    const toPicture = multiplyAffine(invertAffine(matrix), [1 / factor, 0, 0, 1 / factor, 0, 0]);
    const [a, b, c, d, e, f] = multiplyAffine([sx, 0, 0, sy, 0, 0], toPicture);
    const shrink = Math.max(Math.hypot(a, b), Math.hypot(c, d));
    const { grade } = node;
    const isSame = [a - 1, b, c, d - 1, e, f].every((off) => Math.abs(off) < 1e-6);
    const isWhole = box[0] + box[1] === 0 && box[2] === out.width && box[3] === out.height;
    if (isSame && isWhole && !grade && source.width === out.width && source.height === out.height) {
      this.surfaces.paint(out, 'copy', { source: source.texture });
      return out;
    }
    this.surfaces.paint(out, 'draw', {
      source: source.texture,
      acrossBack: [a, b],
      downBack: [c, d],
      originBack: [e, f],
      box,
      edges: edgeNumbers[node.edges],
      steps: shrink > 1.3 ? Math.ceil(shrink) : 1,
      graded: grade !== null,
      slope: grade?.slope ?? [1, 1, 1],
      offset: grade?.offset ?? [0, 0, 0],
      power: grade?.power ?? [1, 1, 1],
      saturation: grade?.saturation ?? 1,
    });
    return out;
  }

  private placed(node: Node, at: number, matrix: Affine, size: Size, scene: Scene): GpuSurface | null {
    const { content } = node;
    const { surfaces } = this;
    if (content.is === 'colour') {
      const out = this.blank(size);
      surfaces.paint(out, 'fill', { colour: [...content.rgb.map((value) => value / 255), 1] });
      return out;
    }
    if (content.is === 'noise') {
      const whole = { width: size.width / this.factor, height: size.height / this.factor };
      const { values, ...cells } = grainsOf(content.seed, content.grain, scene.frame, whole);
      const texture = surfaces.numbers(cells, Float32Array.from(values));
      const out = this.blank(size);
      surfaces.paint(out, 'grains', { source: texture, grain: content.grain * this.factor });
      surfaces.gl.deleteTexture(texture);
      return out;
    }
    const given = this.contentOf(node, at, scene);
    if (!given) return null;
    const out = this.drawn(given.surface, given.size, matrix, node, size);
    if (given.own) surfaces.giveBack(given.surface);
    return out;
  }

  /** A surface with an effect on it; the one before is given back. */
  private withEffect(before: GpuSurface, effect: Effect, at: number): GpuSurface {
    const passes = passesOf(effect, at, this.factor, before);
    if (effect.is !== 'glow') return this.through(before, passes);
    const { surfaces } = this;
    const bright = this.blank(before);
    surfaces.paint(bright, 'bright', { source: before.texture, from: effect.from });
    const light = this.through(bright, passes);
    const amount = valueAt(effect.amount, at);
    const out = this.instead(before, 'glow', { light: light.texture, amount });
    surfaces.giveBack(light);
    return out;
  }

  private through(before: GpuSurface, passes: readonly Pass[]): GpuSurface {
    return passes.reduce((given, [shader, uniforms]) => this.instead(given, shader, uniforms), before);
  }

  /** Multiplies a surface by what a matte covers. */
  private coverBy(surface: GpuSurface, matte: Matte, placed: Placed, scene: Scene): void {
    const { factor, surfaces } = this;
    const { at, matrix } = placed;
    const own = matte.space === 'content';
    const scale = factor * (own ? Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2])) : 1);
    const feather = isFitted(matte) ? 0 : valueAt(matte.feather, at) * scale;
    const grow = valueAt(matte.grow, at) * scale;
    const reach = Math.floor(Math.abs(grow));
    const { shape } = matte;
    if (shape.is === 'outline' && reach === 0) {
      const source = this.outlines.cover(shape, { ...matte, feather }, placed);
      const cover = this.coverOf(source, surface, false, false);
      surfaces.paint(surface, 'copy', { source: cover.texture }, 'cover');
      surfaces.giveBack(cover);
      return;
    }
    let cover = this.shapeOf(matte, placed, scene);
    if (reach > 0) cover = this.instead(cover, 'grow', { distance: grow });
    if (feather > 0.5)
      for (const along of [
        [1, 0],
        [1, 0],
        [0, 1],
        [0, 1],
      ])
        cover = this.instead(cover, 'soften', { along, reach: feather / 4 });
    surfaces.paint(surface, 'copy', { source: cover.texture }, 'cover');
    surfaces.giveBack(cover);
  }

  /** One channel as coverage. */
  private coverOf(source: WebGLTexture, size: Size, ofAlpha: boolean, inverted: boolean): GpuSurface {
    const out = this.blank(size);
    this.surfaces.paint(out, 'cover', { source, ofAlpha, inverted });
    return out;
  }

  /** What a matte covers before it is grown and softened. */
  private shapeOf(matte: Matte, placed: Placed, scene: Scene): GpuSurface {
    const { shape, space, inverted } = matte;
    const { at, matrix, size } = placed;
    const { surfaces } = this;
    switch (shape.is) {
      case 'outline': {
        const source = this.outlines.cover(shape, { space, inverted, feather: 0 }, placed);
        return this.coverOf(source, size, false, false);
      }
      case 'node': {
        if (scene.asked.includes(shape.node))
          refuse('matte.loop', 'Two masks ask for each other. Choose another shape for one of them.');
        const node = nodesIn(scene.tree).find((one) => one.id === shape.node);
        const inside = { ...scene, asked: [...scene.asked, shape.node] };
        const painted = (node && this.paintNode(node, at, size, inside)) ?? this.blank(size);
        const out = this.coverOf(painted.texture, size, true, inverted);
        surfaces.giveBack(painted);
        return out;
      }
      case 'raster': {
        const raster = this.pictureOf(scene, shape.media, valueAt(shape.time, at));
        if (!raster) return this.coverOf(this.blank(size).texture, size, false, inverted);
        const plain = { crop: null, edges: 'empty', grade: null } as const;
        const drawn = this.drawn(raster, shape.size, space === 'content' ? matrix : unmoved, plain, size);
        const out = this.coverOf(drawn.texture, size, false, inverted);
        surfaces.giveBack(drawn);
        return out;
      }
    }
  }

  private paintInstant(node: Node, at: number, size: Size, scene: Scene): GpuSurface | null {
    const matrix = matrixAt(node, at);
    let surface = this.placed(node, at, matrix, size, scene);
    if (!surface) return null;
    for (const effect of node.effects) surface = this.withEffect(surface, effect, at);
    for (const matte of node.mattes) {
      const { content } = node;
      const picture =
        content.is === 'media' && isFitted(matte)
          ? scene.pictureOf(content.media, valueAt(content.time, at), content.between)
          : null;
      this.coverBy(surface, matte, { content, at, matrix, size: surface, picture }, scene);
    }
    const opacity = Math.min(1, Math.max(0, valueAt(node.opacity, at)));
    if (opacity < 1) this.surfaces.paint(surface, 'fill', { colour: [0, 0, 0, opacity] }, 'cover');
    return surface;
  }

  private paintNode(node: Node, at: number, size: Size, scene: Scene): GpuSurface | null {
    if (!showsAt(node, scene.frame)) return null;
    const instants = instantsOf(node, scene.frame, at, this.factor);
    if (instants.length === 1) return this.paintInstant(node, instants[0], size, scene);
    const sum = this.blank(size);
    for (const instant of instants) {
      const painted = this.paintInstant(node, instant, size, scene);
      if (!painted) continue;
      this.surfaces.paint(sum, 'share', { source: painted.texture, share: 1 / instants.length }, 'add');
      this.surfaces.giveBack(painted);
    }
    return sum;
  }

  /** An opaque picture as planes. */
  private planesOf(whole: GpuSurface): YuvImage {
    const { surfaces } = this;
    const out = blankYuv(whole);
    const f = factorsOf(bt709);
    const row = (factors: number[], added: number) => [...factors, added];
    const luma = row(
      [f.kr, f.kg, f.kb].map((share) => share / f.luma),
      f.black,
    );
    const blue = 1 / (2 * (1 - f.kb) * f.chroma);
    const red = 1 / (2 * (1 - f.kr) * f.chroma);
    const planes = [
      { plane: out.y, size: whole as Size, isLuma: true, factors: luma },
      { plane: out.u, isLuma: false, factors: row([-f.kr * blue, -f.kg * blue, (1 - f.kb) * blue], 128) },
      { plane: out.v, isLuma: false, factors: row([(1 - f.kr) * red, -f.kg * red, -f.kb * red], 128) },
    ];
    const small = { width: chromaSide(whole.width), height: chromaSide(whole.height) };
    for (const { plane, size = small, isLuma, factors } of planes) {
      const packed = surfaces.clear({ width: Math.ceil(size.width / 4), height: size.height }, 'bytes');
      surfaces.paint(packed, 'toPlane', { source: whole.texture, isLuma, factors });
      const across = packed.width * 4;
      const bytes = across === size.width ? plane : new Uint8Array(across * size.height);
      surfaces.read(packed, bytes);
      if (bytes !== plane)
        for (let y = 0; y < size.height; y++)
          plane.set(bytes.subarray(y * across, y * across + size.width), y * size.width);
      surfaces.giveBack(packed);
    }
    return out;
  }

  /** Lets go of what it kept on the card. */
  close(): void {
    this.outlines.close();
  }
}
