import type RAPIER from "@dimforge/rapier2d-compat";

/**
 * The physics engine, behind as little as the piles need of it: a body that falls, a thing that is moved by hand, things
 * that stand. Everything that names the engine stands in this file.
 */
export type Engine = typeof RAPIER;
export type Form = "circle" | "box" | "capsule";
export type Piece = Readonly<{ width: number; height: number; form: Form; mass: number; /** 0–1 */ bounce: number }>;
export type At = Readonly<{ x: number; y: number; angle: number }>;
export type Corner = Readonly<[x: number, y: number]>;

export const stepS = 1 / 60;
const friction = 0.55;

export class Body {
  constructor(
    readonly raw: RAPIER.RigidBody,
    readonly collider: RAPIER.Collider,
  ) {}
  get asleep(): boolean {
    return this.raw.isSleeping();
  }
  wake(): void {
    this.raw.wakeUp();
  }
  /** From here on it is not looked after between two steps. */
  slow(): void {
    this.raw.enableCcd(false);
  }
}

/** Something that is moved by hand and that other things lie in: a vessel with its walls. */
export class Carrier {
  constructor(
    readonly raw: RAPIER.RigidBody,
    private readonly world: RAPIER.World,
    private readonly engine: Engine,
  ) {}
  hull(corners: readonly Corner[]): RAPIER.Collider | null {
    const desc = this.engine.ColliderDesc.convexHull(new Float32Array(corners.flat()));
    return desc === null ? null : this.world.createCollider(desc.setFriction(friction).setRestitution(0.15), this.raw);
  }
  move(at: At): void {
    this.raw.setNextKinematicTranslation({ x: at.x, y: at.y });
    this.raw.setNextKinematicRotation(at.angle);
  }
}

export class Space {
  private readonly world: RAPIER.World;
  constructor(
    private readonly engine: Engine,
    gravity: number,
  ) {
    this.world = new engine.World({ x: 0, y: gravity });
    this.world.timestep = stepS;
  }
  set gravity(value: number) {
    this.world.gravity = { x: 0, y: value };
  }
  carrier(at: At): Carrier {
    const desc = this.engine.RigidBodyDesc.kinematicPositionBased().setTranslation(at.x, at.y).setRotation(at.angle);
    return new Carrier(this.world.createRigidBody(desc), this.world, this.engine);
  }
  /** A box that stands where it is; by its middle. */
  block(x: number, y: number, width: number, height: number): RAPIER.Collider {
    const desc = this.engine.ColliderDesc.cuboid(width / 2, height / 2)
      .setTranslation(x, y)
      .setFriction(friction);
    return this.world.createCollider(desc);
  }
  private form(piece: Piece): RAPIER.ColliderDesc {
    const { ColliderDesc } = this.engine;
    const { width, height } = piece;
    const desc =
      piece.form === "circle" || (piece.form === "capsule" && width === height)
        ? ColliderDesc.ball(Math.min(width, height) / 2)
        : piece.form === "box"
          ? ColliderDesc.cuboid(width / 2, height / 2)
          : height >= width
            ? ColliderDesc.capsule((height - width) / 2, width / 2)
            : ColliderDesc.capsule((width - height) / 2, height / 2).setRotation(Math.PI / 2);
    return desc.setFriction(friction).setRestitution(piece.bounce);
  }
  /** A piece that falls; it can't pass through anything, however fast. */
  piece(piece: Piece, at: At, speed: Readonly<{ x: number; y: number; turn: number }>): Body {
    const desc = this.engine.RigidBodyDesc.dynamic()
      .setTranslation(at.x, at.y)
      .setRotation(at.angle)
      .setLinvel(speed.x, speed.y)
      .setAngvel(speed.turn)
      .setAngularDamping(0.6)
      .setLinearDamping(0.05)
      .setCcdEnabled(true);
    const raw = this.world.createRigidBody(desc);
    return new Body(raw, this.world.createCollider(this.form(piece).setMass(piece.mass), raw));
  }
  /** The piece becomes part of what it lies in: it stands still in it, costs nothing, and others lie on it. */
  join(body: Body, piece: Piece, carrier: Carrier, local: At): RAPIER.Collider {
    this.remove(body);
    const desc = this.form(piece);
    const turned = piece.form === "capsule" && piece.width > piece.height ? Math.PI / 2 : 0;
    desc.setTranslation(local.x, local.y).setRotation(local.angle + turned);
    return this.world.createCollider(desc, carrier.raw);
  }
  remove(body: Body): void {
    this.world.removeRigidBody(body.raw);
  }
  take(collider: RAPIER.Collider): void {
    this.world.removeCollider(collider, true);
  }
  step(): void {
    this.world.step();
  }
  free(): void {
    this.world.free();
  }
}
export type Fixture = RAPIER.Collider;
