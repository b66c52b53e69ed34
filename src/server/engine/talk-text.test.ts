import { describe, expect, test } from "@jest/globals";
import type { Signal } from "../../core/signals/signal";
import { talkText } from "./talk-text";

const ada = { id: "ada", name: "Ada", roles: [] };
const head = { seq: 1, atMs: 0, id: "x", viewer: ada };
type Given = Signal extends infer T ? (T extends Signal ? Partial<T> & Pick<T, "kind"> : never) : never;

describe("what the talk says of a signal", () => {
  test.each<[Given, string]>([
    [{ kind: "message", text: "lovely rim" }, "lovely rim"],
    [{ kind: "follow" }, "followed"],
    [{ kind: "membership", months: 1 }, "joined as a member"],
    [{ kind: "membership", months: 1_200 }, "joined for month 1,200"],
    [{ kind: "gift", count: 1 }, "gave 1 membership away"],
    [{ kind: "gift", count: 20 }, "gave 20 memberships away"],
    [{ kind: "tip", amountMinor: 500, currency: "EUR", text: "" }, "tipped 5.00 EUR"],
    [{ kind: "tip", amountMinor: 500, currency: "JPY", text: "hi" }, "tipped 500 JPY “hi”"],
    [{ kind: "reaction", count: 3_000, reaction: "sherd" }, "sent 3,000 sherd"],
    [{ kind: "raid", viewers: 1 }, "raided with 1"],
    [{ kind: "host", viewers: 40 }, "hosts with 40"],
    [{ kind: "purchase-request" }, "on the viewer page"],
    [{ kind: "purchase", title: "Ring it", text: "" }, "bought “Ring it” on the platform"],
    [{ kind: "purchase", title: "Ring it", text: "now" }, "bought “Ring it” on the platform: now"],
    [{ kind: "redemption", reward: "Kiln roar", price: 1_500 }, "bought Kiln roar for 1,500"],
    [{ kind: "live" }, "The platform says: live"],
    [{ kind: "ended" }, "The platform says: ended"],
    [{ kind: "here" }, ""],
    [{ kind: "timer" }, ""],
  ])("%j", (given, words) => expect(talkText({ ...head, ...given } as Signal)).toBe(words));
});
