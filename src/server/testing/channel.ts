import { channelId, gameId } from "../../core/kernel/ids";
import { emoteWall } from "../../core/games/emote-wall/definition";
import { wholePlace } from "../../core/wire/messages";
import { hashToken } from "../secrets";
import type { ChannelRow } from "../ports/engine-store";

/** A channel with one running wall on one overlay, whose link's token is `token-of-main`. */
export const tokenOfMain = "token-of-main-stage-22";
export const testChannel = (part: Partial<ChannelRow> = {}): ChannelRow => ({
  id: channelId("kiln"),
  name: "Saltmarsh Kiln",
  salt: 7,
  revision: 1,
  hushed: false,
  games: [{ id: gameId("wall"), kind: "emote-wall", name: "Wall", version: 1, settings: emoteWall.defaults, durable: null }],
  overlays: [
    {
      id: "main",
      name: "Main",
      tokenHash: hashToken(tokenOfMain),
      shows: true,
      sounds: true,
      css: "",
      places: [{ gameId: gameId("wall"), place: wholePlace, order: 0 }],
    },
  ],
  sprites: [],
  sounds: [],
  events: null,
  triggers: [],
  words: [{ id: "w", word: "wobblePot" }],
  chat: null,
  studio: null,
  ...part,
});
export const said = (text: string, id: string | null = null, name = "ada") => ({
  id,
  viewerId: name,
  name,
  roles: [],
  text,
  marks: [],
  target: "#kiln",
});
export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
