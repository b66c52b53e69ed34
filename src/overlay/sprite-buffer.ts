/**
 * What is to be drawn in one frame, as one flat buffer: no object per sprite, nothing allocated per frame.
 * Places are pixels of the canvas, y down; `angle` in radians; `alpha` 0–1.
 */
export const stride = 8;
export const at = { x: 0, y: 1, width: 2, height: 3, angle: 4, alpha: 5, sprite: 6, frame: 7 } as const;

export class SpriteBuffer {
  /** Makes everything from the `from`-th on fainter. */
  fade(from: number, by: number): void {
    for (let i = from; i < this.count; i += 1) this.data[i * stride + at.alpha] = (this.data[i * stride + at.alpha] ?? 1) * by;
  }

  /** Where the one that was written last stands. */
  youngest(tell: (x: number, y: number) => void): void {
    const i = (this.count - 1) * stride;
    if (i >= 0) tell(this.data[i + at.x] ?? 0, this.data[i + at.y] ?? 0);
  }

  data = new Float32Array(2_048 * stride);
  count = 0;

  push(x: number, y: number, width: number, height: number, angle: number, alpha: number, sprite: number, frame: number): void {
    if ((this.count + 1) * stride > this.data.length) {
      const more = new Float32Array(this.data.length * 2);
      more.set(this.data);
      this.data = more;
    }
    const d = this.data;
    let i = this.count * stride;
    d[i++] = x;
    d[i++] = y;
    d[i++] = width;
    d[i++] = height;
    d[i++] = angle;
    d[i++] = alpha;
    d[i++] = sprite;
    d[i] = frame;
    this.count += 1;
  }
}
