import { createHmac } from "node:crypto";
import { fold } from "../../core/kernel/fold";
import type { ChannelId } from "../../core/kernel/ids";
import { sameText } from "../secrets";
import type { Faces } from "./faces";
import type { Runner } from "./runner";

/** Who gets which face to see: pages of a channel, of people who were there, unless their picture is not to be shown. */
export class FaceDoor {
  constructor(
    private readonly faces: Faces,
    private readonly runners: ReadonlyMap<ChannelId, Runner>,
    /** Who finds people on a channel's platform; null where nobody does. */
    private readonly profiles: (id: ChannelId) => unknown,
    private readonly secret: string,
  ) {}

  /** Where pages find somebody's picture, `{name}` in it: with a word that only pages of this channel were told. */
  url(id: ChannelId): string {
    return this.profiles(id) !== null ? `/faces/${id}/${this.word(id)}/{name}?m=${this.mark(id)}` : "";
  }
  /** Where somebody finds their own picture, and nobody else's. */
  own(id: ChannelId, name: string): string {
    return this.url(id) === "" ? "" : `/faces/${id}/${this.word(id, name)}/${encodeURIComponent(name)}?m=${this.mark(id)}`;
  }
  private mark(id: ChannelId): number {
    return this.runners.get(id)?.modules.provided().noFaces?.mark ?? 0;
  }
  private word(id: ChannelId, name = ""): string {
    return createHmac("sha256", this.secret).update(`faces ${id} ${name}`).digest("base64url").slice(0, 22);
  }
  /** The picture of somebody who was here; null for initials. */
  async picture(id: ChannelId, word: string, name: string): Promise<Buffer | null> {
    const runner = this.runners.get(id);
    const may = sameText(word, this.word(id)) || sameText(word, this.word(id, name));
    if (runner === undefined || !may || !runner.knows(name)) return null;
    if (runner.modules.provided().noFaces?.names.some((n) => fold(n) === fold(name)) === true) return null;
    return (await this.faces.of(id, name))?.picture ?? null;
  }
}
