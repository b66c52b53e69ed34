import { describe, expect, test } from "@jest/globals";
import { may, mayRemote, mayRemoteCommand, rights } from "./rights";

describe("who may do what", () => {
  test("the owner may do everything; what gives secrets away or deletes people is the owner's alone", () => {
    for (const action of Object.keys(rights) as (keyof typeof rights)[]) expect(may("owner", action)).toBe(true);
    for (const action of ["people.forget", "sale.detail", "overlay.link", "chat.connect", "events.connect", "cue.link"] as const)
      expect(may("moderator", action)).toBe(false);
    for (const action of ["command", "hush", "people.import", "game.publish"] as const) expect(may("moderator", action)).toBe(true);
  });
  test("a paired phone has the booth's hands: it refunds, but moves nobody's points otherwise and sets nothing up", () => {
    for (const action of ["hush", "command", "cue.fire"] as const) expect(mayRemote(action)).toBe(true);
    for (const action of ["game.edit", "people.import", "people.forget", "sale.detail", "remote.pair"] as const)
      expect(mayRemote(action)).toBe(false);
    for (const command of ["sale", "refund-all", "damage", "decide"] as const) expect(mayRemoteCommand(command)).toBe(true);
    for (const command of ["adjust", "take-in", "merge"] as const) expect(mayRemoteCommand(command)).toBe(false);
  });
});
