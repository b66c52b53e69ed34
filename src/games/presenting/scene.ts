import { encode } from "uqr";
import { type Person, presentingViewSchema } from "../../core/games/presenting/settings";
import { cardScene } from "../../overlay/card-stage";
import { faceKey } from "../../overlay/drawn-sprites";
import type { Scene, SceneKit } from "../../overlay/scene";

const example: Person = {
  n: 0,
  name: "seaglass_sia",
  page: "https://platform.example/seaglass_sia",
  topic: "Sea glass jewellery",
  about: "makes small things, slowly",
};
/** An address as one says it: without what every one of them has. */
const spoken = (page: string): string => page.replace(/^https?:\/\/(www\.)?/, "").replace(/\/$/, "");

/** Somebody who is worth a visit, on a card. */
export function presentingScene(kit: SceneKit): Scene {
  const { sprites } = kit;
  let coded: Readonly<{ page: string; code: readonly (readonly boolean[])[] }> = { page: "", code: [] };
  const codeOf = (page: string): readonly (readonly boolean[])[] => {
    if (coded.page !== page) {
      let code: readonly (readonly boolean[])[] = [];
      try {
        code = encode(page, { ecc: "M", border: 0 }).data;
      } catch {
        // An address that is too long for a square is told in words alone.
      }
      coded = { page, code };
    }
    return coded.code;
  };
  return cardScene(kit, {
    view: presentingViewSchema,
    card: (view) => view.person,
    example,
    shown: (person) => person,
    words: (person, { looks }) => {
      const lines = [looks.topic ? person.topic : "", looks.about ? person.about : ""].filter((l) => l !== "");
      return {
        title: person.name,
        line: lines.join(" · "),
        small: looks.page ? spoken(person.page) : "",
        faces: looks.face ? [sprites.get(sprites.id(faceKey(person.name)))] : [],
        glaze: person.name,
        picture: null,
        ...(looks.code && person.page !== "" ? { code: codeOf(person.page) } : {}),
      };
    },
  });
}
