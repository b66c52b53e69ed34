import * as twgl from "twgl.js";
import { type SpriteBuffer, stride } from "./sprite-buffer";
import type { Renderer } from "./renderer";
import type { LoadedSprite, SpriteBook } from "./sprites";

const vertex = `#version 300 es
in vec2 corner;
in vec4 box;
in vec4 look;
uniform vec2 view;
uniform float slots;
out vec2 uv;
out float alpha;
void main() {
  float c = cos(look.x), s = sin(look.x);
  vec2 p = corner * box.zw;
  vec2 at = box.xy + vec2(p.x * c - p.y * s, p.x * s + p.y * c);
  gl_Position = vec4(at / view * vec2(2.0, -2.0) + vec2(-1.0, 1.0), 0.0, 1.0);
  vec2 slot = vec2(mod(look.z, slots), floor(look.z / slots));
  uv = (slot + (corner * look.w + 0.5)) / slots;
  alpha = look.y;
}`;
const fragment = `#version 300 es
precision mediump float;
in vec2 uv;
in float alpha;
uniform sampler2D atlas;
out vec4 colour;
void main() { colour = texture(atlas, uv) * alpha; }`;

const slotPx = 256;
/** Keeps a slot's picture off its edge, so that neighbours never bleed in. */
const inset = 1 - 4 / slotPx;

/** One instanced draw over one atlas: for machines with a graphics card. */
export class InstancedRenderer implements Renderer {
  readonly name = "instanced";
  coarse = false;
  private readonly gl: WebGL2RenderingContext;
  private readonly program: twgl.ProgramInfo;
  private readonly buffers: twgl.BufferInfo;
  private readonly texture: WebGLTexture;
  private readonly slotsPerSide: number;
  private readonly owner: Float64Array;
  private readonly usedAt: Float64Array;
  private readonly slotOf = new Map<number, number>();
  private readonly scratch = document.createElement("canvas");
  private data = new Float32Array(2_048 * stride);
  private tick = 0;
  private shown = false;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly sprites: SpriteBook,
  ) {
    const gl = canvas.getContext("webgl2", { alpha: true, premultipliedAlpha: true, antialias: false, failIfMajorPerformanceCaveat: true });
    if (gl === null || isSoftware(gl)) throw new Error("no graphics card");
    this.gl = gl;
    this.program = twgl.createProgramInfo(gl, [vertex, fragment]);
    this.slotsPerSide = Math.min(16, Math.floor(Number(gl.getParameter(gl.MAX_TEXTURE_SIZE)) / slotPx));
    const slots = this.slotsPerSide ** 2;
    this.owner = new Float64Array(slots).fill(-1);
    this.usedAt = new Float64Array(slots).fill(-1);
    const side = this.slotsPerSide * slotPx;
    const texture = gl.createTexture();
    this.texture = texture;
    gl.bindTexture(gl.TEXTURE_2D, texture);
    gl.texStorage2D(gl.TEXTURE_2D, 5, gl.RGBA8, side, side);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.LINEAR_MIPMAP_LINEAR);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.LINEAR);
    this.buffers = twgl.createBufferInfoFromArrays(gl, {
      corner: { numComponents: 2, data: [-0.5, -0.5, 0.5, -0.5, -0.5, 0.5, 0.5, 0.5] },
      box: { numComponents: 4, data: this.data, divisor: 1, stride: stride * 4, offset: 0, drawType: gl.DYNAMIC_DRAW },
    });
    const box = this.buffers.attribs?.["box"];
    if (this.buffers.attribs && box) this.buffers.attribs["look"] = { ...box, offset: 16 };
    this.scratch.width = this.scratch.height = slotPx;
  }

  resize(width: number, height: number): void {
    this.canvas.width = width;
    this.canvas.height = height;
  }

  clear(): void {
    if (!this.shown) return;
    this.gl.clearColor(0, 0, 0, 0);
    this.gl.clear(this.gl.COLOR_BUFFER_BIT);
    this.shown = false;
  }

  draw(flat: SpriteBuffer): void {
    const { gl } = this;
    this.tick += 1;
    if (this.data.length < flat.data.length) this.data = new Float32Array(flat.data.length);
    const from = flat.data,
      to = this.data;
    let count = 0;
    let uploaded = false;
    for (let n = 0, i = 0; n < flat.count; n += 1, i += stride) {
      const sprite = this.sprites.get(from[i + 6] ?? 0);
      if (sprite === undefined || sprite.picture === null) continue;
      const frame = from[i + 7] ?? 0;
      // Only still pictures are ever replaced, so their frames are free to tell one from the next.
      const key = sprite.id * 512 + ((frame + sprite.again) % 512);
      let slot = this.slotOf.get(key);
      if (slot === undefined) {
        slot = this.upload(key, sprite, frame);
        uploaded = true;
      }
      this.usedAt[slot] = this.tick;
      const o = count * stride;
      for (let k = 0; k < 6; k += 1) to[o + k] = from[i + k] ?? 0;
      to[o + 6] = slot;
      to[o + 7] = inset;
      count += 1;
    }
    gl.bindTexture(gl.TEXTURE_2D, this.texture);
    if (uploaded) gl.generateMipmap(gl.TEXTURE_2D);
    gl.viewport(0, 0, this.canvas.width, this.canvas.height);
    this.shown = true;
    this.clear();
    if (count === 0) return;
    this.shown = true;
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA);
    gl.useProgram(this.program.program);
    const box = this.buffers.attribs?.["box"];
    if (box === undefined) return;
    gl.bindBuffer(gl.ARRAY_BUFFER, box.buffer);
    gl.bufferData(gl.ARRAY_BUFFER, to.subarray(0, count * stride), gl.DYNAMIC_DRAW);
    twgl.setBuffersAndAttributes(gl, this.program, this.buffers);
    twgl.setUniforms(this.program, { view: [this.canvas.width, this.canvas.height], slots: this.slotsPerSide, atlas: this.texture });
    twgl.drawBufferInfo(gl, this.buffers, gl.TRIANGLE_STRIP, 4, 0, count);
  }

  /** The card does the work, and its program was compiled when this was made. */
  rehearse(): void {
    this.clear();
  }

  /** Puts one frame into the slot that was not used for longest. */
  private upload(key: number, sprite: LoadedSprite, frame: number): number {
    let slot = 0;
    for (let i = 1; i < this.usedAt.length; i += 1) if ((this.usedAt[i] ?? 0) < (this.usedAt[slot] ?? 0)) slot = i;
    const old = this.owner[slot] ?? -1;
    if (old >= 0) this.slotOf.delete(old);
    this.owner[slot] = key;
    this.slotOf.set(key, slot);
    const context = this.scratch.getContext("2d");
    if (context !== null && sprite.picture !== null) {
      const { columns, frameWidth, frameHeight } = sprite;
      context.clearRect(0, 0, slotPx, slotPx);
      context.drawImage(
        sprite.picture,
        (frame % columns) * frameWidth,
        Math.floor(frame / columns) * frameHeight,
        frameWidth,
        frameHeight,
        2,
        2,
        slotPx - 4,
        slotPx - 4,
      );
      const { gl } = this;
      gl.bindTexture(gl.TEXTURE_2D, this.texture);
      gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, true);
      gl.texSubImage2D(
        gl.TEXTURE_2D,
        0,
        (slot % this.slotsPerSide) * slotPx,
        Math.floor(slot / this.slotsPerSide) * slotPx,
        gl.RGBA,
        gl.UNSIGNED_BYTE,
        this.scratch,
      );
    }
    return slot;
  }

  free(): void {
    this.gl.getExtension("WEBGL_lose_context")?.loseContext();
  }
}

/** A driver that draws on the processor is slower than drawing there oneself. */
function isSoftware(gl: WebGL2RenderingContext): boolean {
  const info = gl.getExtension("WEBGL_debug_renderer_info");
  const name = String(gl.getParameter(info === null ? gl.RENDERER : info.UNMASKED_RENDERER_WEBGL));
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}
