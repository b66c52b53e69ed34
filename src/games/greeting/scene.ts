import { type Card, type GreetingView, greetingViewSchema } from "../../core/games/greeting/settings";
import { count, ordinal } from "../../core/words/sentence";
import type { CardWords } from "../../overlay/card";
import { cardScene } from "../../overlay/card-stage";
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

const example: Card = { n: 0, kind: "one", name: "mossy_teapot", line: "comes in", picture: "", sound: "", shows: 12, names: [], count: 1 };

/** Whoever comes in, on a card. */
export function greetingScene(kit: SceneKit): Scene {
  const { sprites } = kit;
  const face = (name: string) => sprites.get(sprites.id(faceKey(name)));
  return cardScene(kit, {
    view: greetingViewSchema,
    card: (view) => view.card,
    example,
    shown: (card, { looks }) => ({ ...cardWords(card, looks), kind: card.kind }),
    words: (card, { looks }) => ({
      ...cardWords(card, looks),
      glaze: card.name,
      faces: looks.face ? (card.kind === "one" ? [card.name] : card.names).map(face) : [],
      picture: card.picture === "" ? null : (sprites.get(sprites.id(`prop:${card.picture}`)) ?? null),
    }),
  });
}
