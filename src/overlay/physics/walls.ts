import type { At, Carrier, Corner, Fixture, Space } from "./engine";
import { type Ground, inside, outwards, toLocal } from "./pile-parts";

/** What pieces lie in: the vessel's wall, the unseen fence above its rim, the ground and what stands on it. */
export class Walls {
  private fencing: Fixture[] = [];
  constructor(
    private readonly space: Space,
    private readonly ground: Ground,
    private readonly vessel: Carrier | null,
  ) {
    this.build();
    this.fence();
    const { left, right, floor, boxes, sides, top } = ground;
    space.block((left + right) / 2, floor + 5, (right - left) * 3, 10);
    if (sides) {
      const tall = Math.abs(floor - top) * 4 + 40;
      space.block(left - 2.5, floor - tall / 2, 5, tall);
      space.block(right + 2.5, floor - tall / 2, 5, tall);
    }
    for (const box of boxes) space.block(box.x + box.width / 2, box.y + box.height / 2, box.width, box.height);
  }

  private build(): void {
    const { wall, thickness } = this.ground;
    if (wall === null || this.vessel === null) return;
    const outer = outwards(wall, thickness);
    for (let i = 0; i + 1 < wall.length; i += 1) {
      const [a, b, c, d] = [wall[i], wall[i + 1], outer[i + 1], outer[i]];
      if (a !== undefined && b !== undefined && c !== undefined && d !== undefined) this.vessel.hull([a, b, c, d]);
    }
  }
  /** Unseen walls above the rim, so that nothing is lost that the core has counted. They are away while it brims or lies. */
  fence(): void {
    const { wall, top, thickness } = this.ground;
    const from = wall?.[0];
    const to = wall?.[wall.length - 1];
    if (from === undefined || to === undefined || this.vessel === null || this.fencing.length > 0) return;
    for (const [[x, y], way] of [
      [from, -1],
      [to, 1],
    ] as const) {
      const out = x + way * thickness;
      const high = top - 30;
      const corners: readonly Corner[] = [
        [x, y],
        [out, y],
        [out, high],
        [x, high],
      ];
      const made = this.vessel.hull(corners);
      if (made !== null) this.fencing.push(made);
    }
  }
  unfence(): void {
    for (const part of this.fencing) this.space.take(part);
    this.fencing = [];
  }
  /** Where things come in. */
  get mouth(): Readonly<{ left: number; right: number }> {
    const { wall, left, right } = this.ground;
    const from = wall?.[0];
    const to = wall?.[wall.length - 1];
    return from === undefined || to === undefined ? { left, right } : { left: from[0], right: to[0] };
  }
  /** So far away, or so broken, that nothing brings it back by itself. */
  isLost({ x, y }: Readonly<{ x: number; y: number }>): boolean {
    const { floor, left, right } = this.ground;
    return !Number.isFinite(x) || !Number.isFinite(y) || y > floor + 8 || x < left - 30 || x > right + 30;
  }
  /** Beside the vessel, or under it, as it stands. */
  isOutside(stands: At, x: number, y: number): boolean {
    const { wall } = this.ground;
    if (wall === null) return false;
    const local = toLocal(stands, { x, y, angle: 0 });
    const rim = Math.max(wall[0]?.[1] ?? 0, wall[wall.length - 1]?.[1] ?? 0);
    if (local.y < rim + 0.2) {
      const { left, right } = this.mouth;
      return (local.x < left - 0.6 || local.x > right + 0.6) && y > this.ground.top + 1;
    }
    return !inside(wall, local.x, local.y);
  }
}
