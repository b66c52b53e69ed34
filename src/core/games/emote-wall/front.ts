import type { GameFront } from "../../module/game";
import { wallActions } from "./actions";
import { wallNoteInShort, wallNoteInWords } from "./notes";

/** What surfaces need of it while it runs: names, buttons, and what its view says. */
export const emoteWallFront: GameFront = {
  kind: "emote-wall",
  name: "emote wall",
  offer: { name: "an emote wall", about: "Emotes that viewers write in chat fly across the picture." },
  newNames: ["Emote wall", "Second wall", "Third wall"],
  actions: wallActions,
  unsaid: ["wall/no-emotes", "wall/off"],
  takeBack: ({ did, facts = {} }) => {
    const seq = facts["seq"];
    if ((did !== "wall/shown" && did !== "wall/flock") || typeof seq !== "number") return [];
    return [{ label: "Take its emotes off the picture", did: "Its emotes were taken off the picture.", command: { do: "remove", seq } }];
  },
  noteInWords: wallNoteInWords,
  noteInShort: wallNoteInShort,
};
