import { LRUCache } from "lru-cache";
import type { ChannelId } from "../../core/kernel/ids";
import { fold } from "../../core/kernel/fold";
import type { Decoder } from "../decode/decoder";
import type { Face, FaceStore, Found, Profile, Profiles } from "../ports/profiles";
import { Gate } from "./gate";

export type FacesDeps = Readonly<{
  decoder: Decoder;
  store: FaceStore;
  now: () => number;
  /** Who finds people on this channel's platform; null where nobody does. */
  profiles: (id: ChannelId) => Profiles | null;
}>;

const dayMs = 86_400_000;
/** So old a picture is looked for again; what was not found, sooner. */
const freshMs = { found: dayMs, none: 3_600_000 } as const;
/** A platform that did not answer is asked again after so long: first soon, for it may only have been slow. */
const againMs = [5_000, 15_000, 60_000] as const;
/** Whoever waits does so no longer; what comes later is there for the next who asks. */
export const patienceMs = 2_000;
/** Who is looked for by name, to be presented: the platform has this long, and is asked once more where it said nothing. */
export const lookUpMs = 8_000;
const atOnce = 4;
const mostWaiting = 300;

/**
 * Pictures of people, found by name on the platform, by this server alone. Each is looked for once, however many ask at
 * the same time; kept in memory and in the database. Whatever the platform does, nobody waits longer than two seconds.
 */
export class Faces {
  private readonly known = new LRUCache<string, { face: Face; untilMs: number; tries?: number }>({ max: 2_000 });
  private readonly running = new Map<string, Promise<Face | null>>();
  private readonly gate = new Gate(atOnce, mostWaiting);
  private readonly lookUps = new Gate(atOnce, 40);

  constructor(private readonly deps: FacesDeps) {}

  /** What is known of somebody by now, at the latest in two seconds; null when that is nothing. */
  async of(channel: ChannelId, name: string): Promise<Face | null> {
    const key = `${channel} ${fold(name)}`;
    const kept = this.known.get(key);
    const nowMs = this.deps.now();
    if (kept !== undefined && kept.untilMs > nowMs) return kept.face;
    const found = this.running.get(key) ?? this.begin(channel, name, key);
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), patienceMs)));
    const face = await Promise.race([found, late]);
    clearTimeout(timer);
    // An old picture is better than none while the platform is away.
    return face ?? kept?.face ?? null;
  }

  /**
   * Who is looked for by name, which is worth waiting for: what is not known yet is asked of the platform with more patience,
   * twice if need be, and not behind the pictures of a whole raid. Null where that could not be done at all.
   */
  async found(channel: ChannelId, name: string): Promise<Face | null> {
    const key = `${channel} ${fold(name)}`;
    const quick = this.known.get(key);
    if (quick !== undefined && quick.untilMs > this.deps.now() && quick.face.away !== true) return quick.face;
    const look = (): Promise<Face | null> => this.lookUps.run(() => this.look(channel, name, key, lookUpMs)).catch(() => null);
    if (this.lookUps.full) return null;
    const first = await look();
    return first === null || first.away === true ? look() : first;
  }

  /** What is kept of somebody already: nobody is asked for it, and nothing is written. */
  async kept(channel: ChannelId, name: string): Promise<Face | null> {
    const key = fold(name);
    return this.known.get(`${channel} ${key}`)?.face ?? (await this.deps.store.face(channel, key).catch(() => null));
  }

  private begin(channel: ChannelId, name: string, key: string): Promise<Face | null> {
    // A raid of five thousand: those who are too many get their initials, and are looked for when they come again.
    if (this.gate.full) return Promise.resolve(null);
    const work = this.gate
      .run(() => this.look(channel, name, key))
      .catch(() => null)
      .finally(() => this.running.delete(key));
    this.running.set(key, work);
    return work;
  }

  private async look(channel: ChannelId, name: string, key: string, waitMs = patienceMs): Promise<Face | null> {
    const { store, now } = this.deps;
    const profiles = this.deps.profiles(channel);
    if (profiles === null) return null;
    const stored = await store.face(channel, fold(name)).catch(() => null);
    if (stored !== null) {
      const untilMs = stored.atMs + (stored.profile === null ? freshMs.none : freshMs.found);
      if (untilMs > now()) {
        this.known.set(key, { face: stored, untilMs });
        return stored;
      }
    }
    const answer = await profiles.find(name, waitMs);
    if (answer.is === "away") {
      return this.again(key, stored ?? { profile: null, picture: null, atMs: now(), away: true });
    }
    const { picture: sent, profile } = parted(answer);
    const whole = this.withPicture(channel, name, key, answer.is, profile, sent, stored);
    if (waitMs === patienceMs) return whole;
    // The card is there; its picture may follow, and who asks for it meanwhile waits for it.
    this.known.delete(key);
    this.running.set(
      key,
      whole.catch(() => null).finally(() => this.running.delete(key)),
    );
    return { profile, picture: stored?.picture ?? null, atMs: now() };
  }

  private async withPicture(
    channel: ChannelId,
    name: string,
    key: string,
    is: "found" | "none",
    profile: Face["profile"],
    sent: Profile["picture"],
    stored: Face | null,
  ): Promise<Face> {
    const { store, now, decoder } = this.deps;
    const made = Buffer.isBuffer(sent) ? await decoder.face(sent) : null;
    const face: Face = { profile, picture: made?.ok === true ? made.value : null, atMs: now() };
    // Their picture did not come, or could not be opened just now: that is no word on whether they have one.
    if (sent === "away" || (made?.ok === false && made.refusal.code === "file/too-many"))
      return this.again(key, { ...face, picture: stored?.picture ?? null });
    this.known.set(key, { face, untilMs: now() + freshMs[is] });
    await store.saveFace(channel, fold(name), face).catch(() => undefined);
    return face;
  }

  /** Good for a short while, never written: it is looked for again soon. */
  private again(key: string, face: Face): Face {
    const tries = this.known.get(key)?.tries ?? 0;
    this.known.set(key, { face, untilMs: this.deps.now() + (againMs[tries] ?? againMs[2]), tries: tries + 1 });
    return face;
  }
}

/** What was told, and the picture by itself. */
function parted(found: Exclude<Found, { is: "away" }>): Readonly<{ profile: Face["profile"]; picture: Profile["picture"] }> {
  if (found.is === "none") return { profile: null, picture: null };
  const { picture, ...profile } = found.profile;
  return { profile, picture };
}
