import { bossId, wallId } from "./demo-effects";
import { newPlanItem, type PlanItem } from "../../core/show/plan";
import { type ModeratorWord, showDefaults, type ShowSettings } from "../../core/show/settings";
import { potId } from "./demo-brimful";
import { greetingId, presentingId, voicesId } from "./demo-people";
import { predictionId } from "./demo-prediction";
import { raffleId } from "./demo-raffle";
import { wheelId } from "./demo-wheel";

const item = (id: string, title: string, atMin: number, part: Partial<PlanItem>): PlanItem => ({
  ...newPlanItem(id, title, atMin),
  ...part,
});
/** A Friday at the kiln, as its rundown. */
export const demoPlan: readonly PlanItem[] = [
  item("wake", "Old Spall wakes", 5, { lengthMin: 40, does: { do: "start", game: bossId }, starts: { how: "time" } }),
  item("gold", "Golden flock", 20, { does: { do: "cue", cue: "golden-flock" }, note: "when the first bowl comes off the wheel" }),
  item("tea", "Tea break", 45, { lengthMin: 5, does: { do: "cue", cue: "break" } }),
  item("back", "Back from tea", 50, { does: { do: "cue", cue: "break" }, starts: { how: "after", item: "tea", delayMin: 5 } }),
  item("door", "Open the kiln", 75, { does: { do: "cue", cue: "kiln-door" }, note: "count down with chat" }),
  item("thanks", "Thank everyone by name", 110, {}),
];
const word = (
  id: string,
  text: string,
  does: Omit<ModeratorWord, "id" | "word" | "roles">,
  roles: ModeratorWord["roles"] = ["moderator", "streamer"],
): ModeratorWord => ({
  id,
  word: text,
  ...does,
  roles,
});
const acts = (game: string, name: string): Omit<ModeratorWord, "id" | "word" | "roles"> => ({ does: "act", game, act: name });
const only = (does: ModeratorWord["does"]): Omit<ModeratorWord, "id" | "word" | "roles"> => ({ does, game: "", act: "" });
export const demoShow: ShowSettings = {
  ...showDefaults,
  commands: [
    word("hit", "!hit", acts(bossId, "damage")),
    word("mend", "!mend", acts(bossId, "heal")),
    word("spall", "!spall", acts(bossId, "tell-rules"), ["viewer"]),
    word("sparks", "!sparks", acts(wallId, "flock")),
    word("spin", "!spin", acts(wheelId, "spin")),
    word("chances", "!chances", acts(wheelId, "tell-rules"), ["viewer"]),
    word("shake", "!shake", acts(potId, "shake")),
    word("upright", "!upright", acts(potId, "upright")),
    word("full", "!full", acts(potId, "tell-rules"), ["viewer"]),
    word("meet", "!meet", acts(presentingId, "present")),
    word("skipvoice", "!skipvoice", acts(voicesId, "skip")),
    word("hello", "!hello", acts(greetingId, "greet")),
    word("opendraw", "!opendraw", acts(raffleId, "open")),
    word("lockdraw", "!lock", acts(raffleId, "lock")),
    word("draw", "!draw", acts(raffleId, "draw")),
    word("closedraw", "!closedraw", acts(raffleId, "close")),
    word("predict", "!predict", acts(predictionId, "open")),
    word("close", "!close", acts(predictionId, "lock")),
    word("result", "!result", acts(predictionId, "result")),
    word("undo", "!takeback", acts(predictionId, "undo")),
    word("next", "!next", only("next")),
    word("quiet", "!quiet", only("hush")),
    word("loud", "!loud", only("release")),
  ],
};
