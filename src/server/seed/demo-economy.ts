import { type CommandBook, newCommand } from "../../core/commands/settings";
import { type PointsSettings, pointsDefaults } from "../../core/points/settings";

/** Clay, forty rewards and half a year of it, for Saltmarsh Kiln. */
export const demoPoints: PointsSettings = {
  ...pointsDefaults,
  name: "clay",
  presence: { points: 12, everyMin: 10, withinMin: 20 },
  dailyMost: 5_000,
  dayOffsetMin: 60,
  give: { on: true, least: 10, feeBp: 200 },
  words: { balance: "!clay", top: "!top", give: "!give" },
};

export const demoCommands: CommandBook = {
  schema: 1,
  bots: [],
  commands: [
    {
      ...newCommand("cone", "!cone", "The kiln climbs to cone 6, about 1,220 °C."),
      words: ["!cone", "!kiln"],
      about: "how hot the kiln gets",
    },
    {
      ...newCommand("clays", "!clays", ""),
      about: "which clay this is",
      how: "in-turn",
      answers: ["Stoneware from the estuary, with a little grog.", "A smooth white body for the small cups."],
    },
    {
      ...newCommand("oracle", "!willitcrack", ""),
      about: "asks the kiln gods",
      how: "random",
      cooldownMs: 10_000,
      answers: ["The kiln gods nod, {viewer}.", "It will crack, {viewer}. It always does.", "Ask again when it is cool."],
    },
    {
      ...newCommand("oops", "!oops", "{count, plural, one {# pot} other {# pots}} fell off the wheel so far."),
      about: "counts what fell off the wheel",
      counts: true,
      roles: ["moderator", "streamer"],
    },
    { ...newCommand("hug", "!mugup", "{viewer} raises a mug to {target}."), about: "raises a mug to somebody", ownCooldownMs: 20_000 },
  ],
};
