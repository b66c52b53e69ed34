import { type Card, type GreetingView, greetingViewSchema } from "../../core/games/greeting/settings";
import { count, ordinal } from "../../core/words/sentence";
import type { CardWords } from "../../overlay/card";
import { CardStage } from "../../overlay/card-stage";
import { faceKey } from "../../overlay/drawn-sprites";
import type { Scene, SceneKit } from "../../overlay/scene";

const others = (card: Card): string => {
  const rest = card.count - card.names.length;
  return `${card.names.join(", ")}${rest > 0 ? ` and ${count(rest)} more` : ""}`;
};

/** What a card of a greeting says. */
export function cardWords(card: Card, looks: GreetingView["looks"]): Pick<CardWords, "title" | "line" | "small"> {
  if (card.kind === "together")
    return { title: `${card.name} brought along`, line: others(card), small: card.count === 1 ? "" : `${count(card.count)} came in` };
  if (card.kind === "more") return { title: `and ${count(card.count)} more`, line: others(card), small: "" };
  return { title: card.name, line: card.line, small: !looks.times || card.shows < 2 ? "" : `here for the ${ordinal(card.shows)} time` };
}

/** In a preview, while nobody is greeted: somebody made up, so that one sees what one sets up. */
const example: Card = { n: 0, kind: "one", name: "mossy_teapot", line: "comes in", picture: "", sound: "", shows: 12, names: [], count: 1 };

/** Whoever comes in, on a card. */
export function greetingScene(kit: SceneKit): Scene {
  let view: GreetingView | null = null;
  const stage = new CardStage<Card>(kit);
  const { sprites } = kit;
  const face = (name: string) => sprites.get(sprites.id(faceKey(name)));
  return {
    get live() {
      return view?.on === true ? stage.live : 0;
    },
    shown: () => {
      const { shown } = stage;
      return view === null || shown === null ? null : { ...cardWords(shown, view.looks), kind: shown.kind };
    },
    setView: (given) => {
      const parsed = greetingViewSchema.safeParse(given);
      if (!parsed.success) return;
      view = parsed.data;
      const card = view.card ?? (kit.preview === true ? example : null);
      stage.put(card?.n ?? 0, view.on ? card : null, sprites.nowMs);
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => stage.clear(atOnce),
    stack: (order) => stage.stack(order),
    free: () => stage.free(),
    frame: (nowMs, box) => {
      if (view === null) return false;
      const { looks } = view;
      return stage.frame(nowMs, box, looks, view.on, `${sprites.loads} ${JSON.stringify(looks)}`, (card) => ({
        ...cardWords(card, looks),
        glaze: card.name,
        faces: looks.face ? (card.kind === "one" ? [card.name] : card.names).map(face) : [],
        picture: card.picture === "" ? null : (sprites.get(sprites.id(`prop:${card.picture}`)) ?? null),
      }));
    },
  };
}
