import type { FilmOf, StepContext } from "../../core/module/module";
import type { Sprite } from "../../core/wire/messages";
import type { Vault } from "../../core/chance/vault";
import { gameOf } from "../../core/games/registry";
import { isGame } from "../../core/games/fronts";
import { fold } from "../../core/kernel/fold";
import { moneyDefaults, type MoneySettings } from "../../core/signals/money";
import { emojiName } from "../speech/emoji-names";
import { showable } from "../../core/words/template";
import type { ChannelRow } from "../ports/engine-store";
import type { LedgerCache } from "./ledger-cache";
import type { Modules } from "./modules";

export type Kit = Omit<StepContext, "emotes">;
const mostNames = 5_000;

/** What steps are told of the channel: made anew with its settings, completed for each signal. */
export class ChannelContext {
  private base: Kit;
  private names = new Map<string, string>();
  money: MoneySettings = moneyDefaults;

  constructor(
    private readonly modules: Modules,
    private readonly ledgerView: LedgerCache,
    row: ChannelRow,
    private readonly vault: Vault,
  ) {
    this.base = this.make(row);
  }

  renew(row: ChannelRow): void {
    this.base = this.make(row);
    this.names.clear();
  }

  get pointsName(): string {
    return this.base.pointsName;
  }
  get homeCurrency(): string {
    return this.base.homeCurrency;
  }

  private make(row: ChannelRow): Kit {
    const { modules, ledgerView } = this;
    const provided = modules.provided();
    this.money = provided.money ?? moneyDefaults;
    ledgerView.dayOffsetMin = provided.dayOffsetMin ?? 0;
    const pictures = new Map(row.sprites.filter((s) => s.key.startsWith("prop:")).map((s) => [fold(s.word), s.key]));
    // By id, not by name: two of one name are two.
    const own = new Map(row.sprites.filter((s) => s.key.startsWith("prop:")).map((s) => [s.key.slice("prop:".length), s]));
    const cues = new Set(provided.cues ?? []);
    const sounds = new Map(row.sounds.map((s) => [s.id, s.ms]));
    const words = new Set(modules.list.flatMap((m) => m.rules.chatWords?.(m.settings) ?? []).map(fold));
    const playable = (game: string): boolean => {
      const module = modules.byId(game);
      if (module === undefined || !isGame(module.kind)) return false;
      const view = module.rules.view(module.settings, module.durable, "operator", module.transient);
      return gameOf(module.kind)?.playable?.(view) ?? view["on"] !== false;
    };
    return {
      salt: row.salt,
      channelName: row.name,
      homeCurrency: this.money.home,
      soundMs: (sound) => sounds.get(sound) ?? 0,
      videoMs: (picture) => own.get(picture)?.video?.ms ?? 0,
      filmOf: (picture) => filmIn(own.get(picture)),
      pictureNamed: (name) => pictures.get(fold(name)) ?? null,
      gameKind: (game) => modules.byId(game)?.kind ?? "",
      gameName: (game) => modules.byId(game)?.name ?? game,
      ledgerView,
      hushed: row.hushed,
      showId: null,
      rehearsing: false,
      hiddenWords: provided.hiddenWords ?? [],
      pointsName: provided.pointsName ?? "points",
      gameRuns: playable,
      has: (what, id) => {
        if (what === "game") return isGame(modules.byId(id)?.kind ?? "");
        if (what === "cue") return cues.has(id);
        return what === "picture" ? own.has(id) : sounds.has(id);
      },
      emojiName,
      isWord: (word) => words.has(fold(word)),
      vault: this.vault,
    };
  }

  /** With what differs from one signal to the next. */
  at(atMs: number, hushed: boolean): Kit {
    const show = this.modules.show();
    const showId = show?.state === "on" ? show.id : null;
    this.ledgerView.show(showId ?? "");
    this.ledgerView.nowMs = atMs;
    return { ...this.base, hushed, showId, rehearsing: show?.state === "rehearsing" };
  }

  /** Names come onto the picture in many places, so they are made fit for it where they come in. */
  nameFor(name: string): string {
    let clean = this.names.get(name);
    if (clean === undefined) {
      if (this.names.size > mostNames) this.names.clear();
      clean = showable(name, this.base.hiddenWords, 40) || "someone";
      this.names.set(name, clean);
    }
    return clean;
  }
}

function filmIn(sprite: Sprite | undefined): FilmOf | null {
  if (sprite?.video === undefined) return null;
  const { word: name, url: poster, frameWidth: width, frameHeight: height, video } = sprite;
  return { name, poster, width, height, url: video.url, ms: video.ms, audible: video.audible, flashing: video.flashing };
}
