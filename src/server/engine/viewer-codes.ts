import { randomInt } from "node:crypto";
import type { ChannelId } from "../../core/kernel/ids";

const codeMs = 10 * 60_000;
/** So many are valid at a time: what an address may ask for, by hundreds of addresses. */
const mostCodes = 50_000;
/** Without letters and digits that are taken for each other. */
const letters = "abcdefghjkmnpqrstuvwxyz23456789";

type Given = Readonly<{ channel: ChannelId; tokenHash: string; untilMs: number }>;

/** Codes that prove a chat name, each valid for ten minutes and for one page. New codes never replace valid ones. */
export class ViewerCodes {
  /** In the order in which they were given, which is that in which they end. */
  private readonly codes = new Map<string, Given>();
  private readonly ofPage = new Map<string, string>();

  constructor(
    private readonly now: () => number,
    private readonly most = mostCodes,
    private readonly random = (): string => `me-${Array.from({ length: 5 }, () => letters[randomInt(letters.length)]).join("")}`,
  ) {}

  /** A page's code, the same for as long as it is valid; null while too many are asked for. */
  of(channel: ChannelId, tokenHash: string): Readonly<{ code: string; untilMs: number }> | null {
    const nowMs = this.now();
    for (const [code, { untilMs }] of this.codes) {
      // Set back, a clock makes later ones end sooner: they are looked at when their turn comes.
      if (untilMs > nowMs) break;
      this.drop(code);
    }
    const before = this.ofPage.get(keyOf(channel, tokenHash));
    const known = before === undefined ? undefined : this.codes.get(before);
    if (before !== undefined && known !== undefined && known.untilMs > nowMs) return { code: before, untilMs: known.untilMs };
    if (this.codes.size >= this.most) return null;
    let code = this.random();
    while (this.codes.has(code)) code = this.random();
    this.put(code, { channel, tokenHash, untilMs: nowMs + codeMs });
    return { code, untilMs: nowMs + codeMs };
  }

  /** Which page's code this text is: valid once, and in its own channel alone. */
  take(channel: ChannelId, text: string): Readonly<{ tokenHash: string; putBack: () => void }> | null {
    const code = text.trim().toLowerCase();
    const found = this.codes.get(code);
    if (found === undefined || found.channel !== channel || found.untilMs <= this.now()) return null;
    this.drop(code);
    return { tokenHash: found.tokenHash, putBack: () => this.put(code, found) };
  }

  private put(code: string, given: Given): void {
    this.codes.set(code, given);
    this.ofPage.set(keyOf(given.channel, given.tokenHash), code);
  }
  private drop(code: string): void {
    const given = this.codes.get(code);
    this.codes.delete(code);
    if (given !== undefined && this.ofPage.get(keyOf(given.channel, given.tokenHash)) === code)
      this.ofPage.delete(keyOf(given.channel, given.tokenHash));
  }
}
const keyOf = (channel: ChannelId, tokenHash: string): string => `${channel} ${tokenHash}`;
