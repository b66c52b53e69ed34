import { describe, expect, test } from "@jest/globals";
import { chatReader, defaultDialect, dialectSchema, marksFrom, paidFrom } from "./dialect";
import { parseLine } from "./line";

const read = chatReader(defaultDialect);
const line = (text: string) => read(parseLine(text)!);

describe("what a chat line says, by the channel's dialect", () => {
  test("name, account, id, roles and emote places come from their tags", () => {
    expect(
      line(
        "@izzam/name=Mossy\\sTeapot;account=Mossy_Teapot;msgid=m1;izzam/roles=member/6,moderator;izzam/emotes=0+4=tide :mossy!m@h PRIVMSG #kiln :tide rising",
      ),
    ).toEqual({
      id: "m1",
      viewerId: "mossy_teapot",
      name: "Mossy Teapot",
      roles: ["member", "moderator"],
      text: "tide rising",
      marks: [{ start: 0, length: 4, id: "tide" }],
      target: "#kiln",
    });
  });
  test("without tags the nick is all there is", () => {
    expect(line(":Quiet!q@h PRIVMSG #kiln :hi")).toMatchObject({ id: null, viewerId: "quiet", name: "Quiet", roles: [], marks: [] });
  });
  test("other names and badges are a setting", () => {
    const own = chatReader(
      dialectSchema.parse({
        name: "display",
        roles: "groups",
        messageId: "",
        emotes: "",
        viewerId: "uid",
        badges: { member: "patron, backer", guest: "", moderator: "guard", streamer: "host" },
      }),
    );
    expect(own(parseLine("@display=Ada;groups=backer,host;uid=77;msgid=x :a!a@h PRIVMSG #k :yo")!)).toMatchObject({
      id: null,
      viewerId: "77",
      name: "Ada",
      roles: ["member", "streamer"],
    });
  });
  test("an action is what was said; other talk between programs is not", () => {
    expect(line(":a!a@h PRIVMSG #k :\u0001ACTION waves\u0001")?.text).toBe("waves");
    expect(line(":a!a@h PRIVMSG #k :\u0001VERSION\u0001")).toBeNull();
    expect(line(":a!a@h NOTICE #k :hi")).toBeNull();
  });
  test("colours and bold of chat programs are no words; marked places in such a line are passed over", () => {
    expect(line(":a!a@h PRIVMSG #k :\u0002that\u0002 \u000304,01rim\u0003 \u001dis\u000f \u0003fine \u0004ff0000,00ff00red")?.text).toBe(
      "that rim is fine red",
    );
    expect(line("@izzam/emotes=0+4=tide :a!a@h PRIVMSG #k :\u0002tide\u0002")).toMatchObject({ text: "tide", marks: [] });
    expect(line(":a!a@h PRIVMSG #k :3 pots, 12 cups")?.text).toBe("3 pots, 12 cups");
  });
  test("a name can't repaint the line it stands in", () => {
    expect(line("@izzam/name=ev\u202Eil\u200B;x=1 :a!a@h PRIVMSG #k :x")?.name).toBe("evil");
    expect(line("@izzam/name=\u200B\u200B :a!a@h PRIVMSG #k :x")?.name).toBe("someone");
    expect(line(`@izzam/name=${"n".repeat(200)} :a!a@h PRIVMSG #k :x`)?.name).toHaveLength(40);
  });
});

describe("marked emote places", () => {
  test("are counted in code points, so astral characters before them shift nothing", () => {
    const text = "🔥🔥 tide";
    expect(marksFrom("3+4=tide", text)).toEqual([{ start: 5, length: 4, id: "tide" }]);
  });
  test("come in order, without overlaps, inside the text; anything else is passed over", () => {
    expect(marksFrom("5+4=b,0+4=a,2+4=over,90+4=far,3+0=none,x,1+1=", "tide gull")).toEqual([
      { start: 0, length: 4, id: "a" },
      { start: 5, length: 4, id: "b" },
    ]);
  });
  test("500 at most, however many are claimed", () => {
    const text = "a ".repeat(1_000);
    const tag = Array.from({ length: 900 }, (_, i) => `${i * 2}+1=e`).join(",");
    expect(marksFrom(tag, text)).toHaveLength(500);
  });
});

describe("paid reactions inside a message", () => {
  const paid = (tag: string) => paidFrom(tag).map((p) => `${p.reaction} ${p.count} × ${p.valueEach}`);
  test("are read with their kind, their number and what each is worth", () => {
    expect(paid("sherd:50:1,golden sherd:2:100")).toEqual(["sherd 50 × 1", "golden sherd 2 × 100"]);
    expect(paid("sherd:5")).toEqual(["sherd 5 × 1"]);
  });
  test.each(["", ":5:1", "sherd", "sherd:0:1", "sherd:-5:1", "sherd:1e9:1", "sherd:5:0", "sherd:99999999999:1", `${"x".repeat(61)}:1:1`])(
    "“%s” is none",
    (tag) => expect(paid(tag)).toEqual([]),
  );
  test("more than ten kinds in one message are left out", () => {
    expect(paidFrom(Array.from({ length: 30 }, (_, i) => `k${i}:1:1`).join(","))).toHaveLength(10);
  });
});
