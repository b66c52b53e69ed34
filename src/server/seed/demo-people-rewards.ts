import type { RuleEffect } from "../../core/rules/effect";
import { type Line, second } from "./demo-history";

/** The rewards that came with greetings and voices: nobody has bought them in the months before. */
export const peopleRewards = "People";
const act = (game: string, name: string, input: Record<string, unknown>): RuleEffect => ({ do: "act", game, act: name, input, per: 1 });

export const rewardsForPeople: readonly Line[] = [
  [
    "feed-grog",
    "A fish for Grog",
    60,
    "!fish",
    [act("kiln-cat", "feed", { amount: 8 })],
    { about: "The kiln cat is the merrier for it.", onlyOnAir: true },
  ],
  [
    "read-aloud",
    "Have it read aloud",
    220,
    "!aloud",
    [act("read-aloud", "say", { text: "{text}", how: "as-set", voice: "" })],
    { text: { how: "must", asks: "What shall be said?" }, ownRestMs: 60 * second, onlyOnAir: true },
  ],
  [
    "own-entrance",
    "An entrance of your own",
    1_500,
    "",
    [act("at-the-door", "entrance", { name: "", line: "{text}", picture: "", sound: "", role: "always" })],
    { text: { how: "must", asks: "How do you come in?" }, about: "Said whenever you write first in a show." },
  ],
  [
    "gull-voice",
    "The voice of a gull",
    900,
    "",
    [act("read-aloud", "voice", { name: "", voice: "Gull" })],
    { about: "All that you have read aloud is said by a gull." },
  ],
];
