import {
  createBufferInfoFromArrays,
  createProgramInfo,
  drawBufferInfo,
  setBuffersAndAttributes,
  setUniforms,
} from 'twgl.js';
import type { ProgramInfo } from 'twgl.js';
import type { Size } from '@/core/geometry/size';
import { nameOfCard } from './has-card';
import { everywhere, shaders } from './shaders';

/** A picture on the graphics card: colours multiplied by their coverage, in half floats. */
export type GpuSurface = Size & { texture: WebGLTexture; frame: WebGLFramebuffer };

/** How what is painted goes together with what is there. */
export type Joining = 'replace' | 'over' | 'add' | 'cover';

type Uniforms = Record<string, number | boolean | readonly number[] | WebGLTexture>;

/** Textures of half floats are painted in, and those of bytes are taken in. */
type Format = { inside: number; outside: number; type: number };

/** The graphics card's surfaces and programs. Surfaces are given back and used again. */
export class Surfaces {
  readonly gl: WebGL2RenderingContext;
  private readonly canvas: OffscreenCanvas;
  private readonly programs = new Map<string, ProgramInfo>();
  private readonly triangle;
  private readonly spare = new Map<string, GpuSurface[]>();

  private constructor(canvas: OffscreenCanvas, gl: WebGL2RenderingContext) {
    this.canvas = canvas;
    this.gl = gl;
    this.triangle = createBufferInfoFromArrays(gl, {
      position: { numComponents: 2, data: [-1, -1, 3, -1, -1, 3] },
    });
    gl.disable(gl.DITHER);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    gl.pixelStorei(gl.PACK_ALIGNMENT, 1);
  }

  /** Null where there is no graphics card that paints in half floats. */
  static open(): Surfaces | null {
    if (typeof OffscreenCanvas === 'undefined') return null;
    const canvas = new OffscreenCanvas(1, 1);
    const gl = canvas.getContext('webgl2', { antialias: false, depth: false, alpha: false });
    return gl?.getExtension('EXT_color_buffer_float') ? new Surfaces(canvas, gl) : null;
  }

  get lost(): boolean {
    return this.gl.isContextLost();
  }

  /** What the browser says of the card that paints. */
  get name(): string {
    return nameOfCard(this.gl);
  }

  private texture(size: Size, { inside, outside, type }: Format, data: ArrayBufferView | null): WebGLTexture {
    const { gl } = this;
    const texture = gl.createTexture();
    gl.bindTexture(gl.TEXTURE_2D, texture);
    for (const side of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T])
      gl.texParameteri(gl.TEXTURE_2D, side, gl.CLAMP_TO_EDGE);
    for (const filter of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
      gl.texParameteri(gl.TEXTURE_2D, filter, gl.NEAREST);
    gl.texImage2D(gl.TEXTURE_2D, 0, inside, size.width, size.height, 0, outside, type, data);
    return texture;
  }

  /** One byte a pixel, as shares of 255. */
  bytes(size: Size, data: Uint8Array): WebGLTexture {
    const { gl } = this;
    return this.texture(size, { inside: gl.R8, outside: gl.RED, type: gl.UNSIGNED_BYTE }, data);
  }

  /** One number a pixel. */
  numbers(size: Size, data: Float32Array): WebGLTexture {
    const { gl } = this;
    return this.texture(size, { inside: gl.R32F, outside: gl.RED, type: gl.FLOAT }, data);
  }

  private surface(size: Size, format: Format): GpuSurface {
    const { gl } = this;
    const texture = this.texture(size, format, null);
    const frame = gl.createFramebuffer();
    gl.bindFramebuffer(gl.FRAMEBUFFER, frame);
    gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, texture, 0);
    return { width: size.width, height: size.height, texture, frame };
  }

  /** A surface with nothing on it; half floats, or bytes where codes of a plane are painted. */
  clear({ width, height }: Size, kind: 'half' | 'bytes' = 'half'): GpuSurface {
    const { gl } = this;
    const key = `${kind} ${width} ${height}`;
    const format =
      kind === 'half'
        ? { inside: gl.RGBA16F, outside: gl.RGBA, type: gl.HALF_FLOAT }
        : { inside: gl.RGBA8, outside: gl.RGBA, type: gl.UNSIGNED_BYTE };
    const found = this.spare.get(key)?.pop() ?? this.surface({ width, height }, format);
    this.keys.set(found, key);
    gl.bindFramebuffer(gl.FRAMEBUFFER, found.frame);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT);
    return found;
  }
  private readonly keys = new Map<GpuSurface, string>();

  /** Gives a surface back; nobody looks at it any more. */
  giveBack(surface: GpuSurface): void {
    const key = this.keys.get(surface);
    if (key === undefined) return;
    this.keys.delete(surface);
    this.spare.set(key, [...(this.spare.get(key) ?? []), surface]);
  }

  /** Paints on every pixel of a surface. */
  paint(
    into: GpuSurface,
    shader: keyof typeof shaders,
    uniforms: Uniforms,
    joining: Joining = 'replace',
  ): void {
    const { gl, triangle } = this;
    const program = this.programs.get(shader) ?? createProgramInfo(gl, [everywhere, shaders[shader]]);
    this.programs.set(shader, program);
    gl.bindFramebuffer(gl.FRAMEBUFFER, into.frame);
    gl.viewport(0, 0, into.width, into.height);
    if (joining === 'replace') gl.disable(gl.BLEND);
    else {
      gl.enable(gl.BLEND);
      if (joining === 'over') gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA);
      if (joining === 'add') gl.blendFunc(gl.ONE, gl.ONE);
      if (joining === 'cover') gl.blendFunc(gl.ZERO, gl.SRC_ALPHA);
    }
    gl.useProgram(program.program);
    setBuffersAndAttributes(gl, program, triangle);
    setUniforms(program, uniforms);
    drawBufferInfo(gl, triangle);
  }

  /** The bytes of a surface of bytes, row after row. */
  read({ frame, width, height }: GpuSurface, into: Uint8Array): void {
    const { gl } = this;
    gl.bindFramebuffer(gl.FRAMEBUFFER, frame);
    gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, into);
  }

  /** Lets go of everything at once. */
  close(): void {
    this.gl.getExtension('WEBGL_lose_context')?.loseContext();
    this.canvas.width = 0;
  }
}
