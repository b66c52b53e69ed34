import { unitAt } from "../../core/kernel/chance";
import type { At, Corner } from "./engine";

export const tipSteps = 52;
const upSteps = 60;
const shakeSteps = 70;
/** So long after it stood up its rim lets fall what hangs over it. */
export const restsUpright = upSteps + 20;
const mostSlide = 0.9;
const ownMass = 400;

/** How far it turns over the edge of its foot until its side lies on the ground. */
export function lieAngleOf(wall: readonly Corner[]): number {
  const foot = footOf(wall);
  const all = wall.filter(([x, y]) => x > foot && y < -4).map(([x, y]) => Math.atan2(-y, x - foot));
  return Math.max(0.6, Math.min(1.6, ...all));
}
/** Half the width it stands on. */
function footOf(wall: readonly Corner[]): number {
  const low = Math.max(...wall.map((c) => c[1]));
  return Math.max(0.3, ...wall.filter((c) => c[1] > low - 0.4).map((c) => Math.abs(c[0])));
}

const ease = (u: number): number => u * u * (3 - 2 * u);

/**
 * How a vessel itself moves, step by step: rocks and slides when something heavy lands, is shaken, falls over onto its
 * side and is set up again. Played, never decided: what tips it, the core has said.
 */
export class VesselMotion {
  at: At = { x: 0, y: 0, angle: 0 };
  free = false;
  private slideX = 0;
  private slideV = 0;
  private rock = 0;
  private rockV = 0;
  private shaking: Readonly<{ from: number; seed: number; strength: number }> | null = null;
  private fall: Readonly<{ from: number; way: -1 | 1; up: boolean }> | null = null;
  private lying: -1 | 0 | 1 = 0;
  private readonly foot: number;
  private readonly lieAngle: number;
  private readonly lift: number;

  constructor(wall: readonly Corner[] | null) {
    // It turns about the edge of its foot.
    this.foot = wall === null ? 1 : footOf(wall);
    this.lieAngle = wall === null ? 1 : lieAngleOf(wall);
    // A round side would lie in the ground: so far it is lifted.
    const [c, s] = [Math.cos(this.lieAngle), Math.sin(this.lieAngle)];
    this.lift = Math.max(0, ...(wall ?? []).map(([x, y]) => (x - this.foot) * s + y * c));
  }

  get lies(): boolean {
    return this.lying !== 0 && this.fall === null;
  }
  get tipping(): boolean {
    return this.fall !== null;
  }
  get still(): boolean {
    return this.shaking === null && this.fall === null && this.slideV === 0 && this.rockV === 0 && this.rock === 0;
  }

  /** Something of this mass lost so much speed at x. */
  struck(x: number, blow: number, mass: number): void {
    if (this.lying !== 0 || this.fall !== null) return;
    const force = (blow * mass) / ownMass;
    if (force < 0.12) return;
    const way = x - this.at.x >= 0 ? 1 : -1;
    const lever = Math.min(1, Math.abs(x - this.at.x) / 4);
    this.rockV += way * Math.min(0.035, force * 0.012 * lever * (this.free ? 1 : 0.3));
    if (this.free) this.slideV += way * Math.min(0.06, force * 0.012);
  }
  shake(step: number, seed: number, strength: number): void {
    if (this.lying === 0) this.shaking = { from: step, seed, strength: Math.min(3, strength) };
  }
  tip(step: number, way: -1 | 1): void {
    if (this.lying !== 0) return;
    this.lying = way;
    this.fall = { from: step, way, up: false };
    this.shaking = null;
  }
  upright(step: number): void {
    if (this.lying === 0) return;
    this.fall = { from: step, way: this.lying, up: true };
    this.lying = 0;
  }
  lay(way: -1 | 1): void {
    this.lying = way;
    this.place(0, way, 1);
  }

  /** Turned so far over the edge of its foot, 0 to 1. */
  private place(slide: number, way: -1 | 1, over: number): void {
    const angle = way * this.lieAngle * over;
    const pivot = way * this.foot;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    // The edge of the foot stays where it is, and slides a little as it goes down.
    this.at = { x: slide + pivot - pivot * c + way * 0.3 * over, y: -pivot * s - this.lift * Math.max(0, over), angle };
  }

  /** Whether it moved. */
  step(step: number): boolean {
    if (this.fall !== null) {
      const { from, way, up } = this.fall;
      const u = Math.min(1, (step - from) / (up ? upSteps : tipSteps));
      // It hesitates on its edge, falls ever faster, and bounces once; it is set up with a sway.
      const over = up ? 1 - ease(u) + Math.sin(u * Math.PI * 3) * 0.05 * (1 - u) : fallen(u);
      this.place(this.slideX, way, over);
      if (u >= 1) {
        this.fall = null;
        if (up) {
          this.slideX = this.slideV = this.rock = this.rockV = 0;
          this.at = { x: 0, y: 0, angle: 0 };
        }
      }
      return true;
    }
    if (this.lying !== 0 || this.still) return false;
    this.rockV += -this.rock * 0.09;
    this.rockV *= 0.86;
    this.rock += this.rockV;
    if (Math.abs(this.rock) < 0.0006 && Math.abs(this.rockV) < 0.0006) this.rock = this.rockV = 0;
    this.slideX = Math.max(-mostSlide, Math.min(mostSlide, this.slideX + this.slideV));
    this.slideV = Math.abs(this.slideV) < 0.0008 ? 0 : this.slideV * 0.88;
    let [x, y, angle] = [this.slideX, 0, this.rock];
    if (this.shaking !== null) {
      const { from, seed, strength } = this.shaking;
      const u = (step - from) / shakeSteps;
      if (u >= 1) this.shaking = null;
      else {
        const fade = (1 - u) ** 1.4 * strength;
        const beat = u * Math.PI * 2 * (5 + unitAt(seed, 1));
        x += Math.sin(beat) * 0.34 * fade;
        y -= Math.abs(Math.sin(beat * 0.5)) * 0.25 * fade;
        angle += Math.sin(beat + 0.7) * 0.05 * fade;
      }
    }
    this.at = { x, y, angle };
    return true;
  }
}

function fallen(u: number): number {
  if (u < 0.28) return 0.05 * Math.sin((u / 0.28) * Math.PI * 0.5);
  const v = (u - 0.28) / 0.72;
  if (v < 0.72) return 0.05 + 0.95 * (v / 0.72) ** 2.4;
  const b = (v - 0.72) / 0.28;
  return 1 - 0.045 * Math.sin(b * Math.PI) * (1 - b);
}
