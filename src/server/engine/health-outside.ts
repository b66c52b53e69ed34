import { counted } from "../../core/words/sentence";
import type { HealthItem } from "../../core/wire/messages";
import type { StudioStanding } from "../ports/studio";

/** What is outside the engine: who speaks, the studio, who makes films. */
export type OutsideFacts = Readonly<{
  /** Texts that could not be spoken in the last minutes, and why the last one could not. */
  unspoken?: Readonly<{ count: number; why: string }>;
  /** Null where none is connected to. */
  studio?: StudioStanding | null;
  /** Films that have been waiting for long while none is made. */
  stalledFilms?: number;
}>;

/** Said only while something could not be spoken: a channel without spoken messages needs no engine. */
export function speechHealth({ unspoken }: OutsideFacts): HealthItem | null {
  if (unspoken === undefined || unspoken.count === 0) return null;
  const missing = unspoken.why === "speech/none";
  return {
    id: "speech",
    name: "Spoken messages",
    state: "waiting",
    says: `${counted(unspoken.count, "text")} could not be spoken in the last minutes.`,
    means: "They were skipped; what is shown as well is shown all the same.",
    todo: missing
      ? "The engine is not installed: Debian’s packages espeak-ng and flite. ./start installs them as root."
      : unspoken.why === "speech/late"
        ? "The engine took too long and was ended. Is the computer busy?"
        : "Try the voice under its game: Hear.",
  };
}

/** Said only while films wait and none is made. */
export function filmHealth({ stalledFilms = 0 }: OutsideFacts): HealthItem | null {
  if (stalledFilms === 0) return null;
  return {
    id: "films",
    name: "Films",
    state: "waiting",
    says: `${counted(stalledFilms, "film")} ${stalledFilms === 1 ? "has" : "have"} been waiting for more than a minute.`,
    means: "What is added is not there yet; what viewers sent is given back when it takes too long.",
    todo: "They are made one after another, here and for other channels. If it stays so, restart Izzam.",
  };
}

export function studioHealth({ studio = null }: OutsideFacts): HealthItem | null {
  if (studio === null) return null;
  const base = { id: "studio", name: "Studio" };
  if (studio.state === "connected")
    return {
      ...base,
      state: "good",
      says: `${studio.name === "" ? "It" : studio.name} answers; ${studio.current === null ? "no scene is on" : `“${studio.current}” is on`}.`,
      means: "",
      todo: "",
    };
  return {
    ...base,
    state: studio.lastError === "" ? "waiting" : "bad",
    says: studio.lastError === "" ? "Izzam connects to it." : `It can’t be reached: ${studio.lastError}.`,
    means: "Scenes stay as they are; whoever asks for one is told so. Nothing is done late.",
    todo: "Is the broadcast software running, with its bridge? The address stands under Connections. Izzam goes on trying.",
  };
}
