import { afterEach, describe, expect, test } from "@jest/globals";
import { Client } from "irc-framework";
import { marksFrom } from "../core/chat/dialect";
import { IrcServer } from "./irc-server";
import { marksOf, saidLine } from "./platform";
import { people } from "./viewers";

const ends: (() => unknown)[] = [];
afterEach(async () => {
  for (const end of ends.splice(0).reverse()) await end();
});
const heard = (client: Client, event: string): Promise<Record<string, unknown>> =>
  new Promise((resolve, reject) => {
    const late = setTimeout(() => reject(new Error(`no ${event}`)), 4_000);
    client.once(event, (data: Record<string, unknown>) => {
      clearTimeout(late);
      resolve(data);
    });
  });
const server = async (options: ConstructorParameters<typeof IrcServer>[0] = {}): Promise<{ irc: IrcServer; port: number }> => {
  const irc = new IrcServer(options);
  ends.push(() => irc.close());
  return { irc, port: await irc.listen(0) };
};
const join = async (port: number, nick: string, more: Record<string, unknown> = {}): Promise<Client> => {
  const client = new Client();
  ends.push(() => client.quit("bye"));
  client.connect({ host: "127.0.0.1", port, nick, auto_reconnect: false, ...more });
  await heard(client, "registered");
  const joined = heard(client, "userlist");
  client.join("#saltmarsh-kiln");
  await joined;
  return client;
};

describe("the rig's chat server, with a client that others wrote", () => {
  test("lets in, joins, and passes on what one says to the other", async () => {
    const { port } = await server();
    const [ada, bo] = [await join(port, "ada"), await join(port, "bo")];
    const message = heard(bo, "privmsg");
    ada.say("#saltmarsh-kiln", "good pull 🔥");
    expect(await message).toMatchObject({ nick: "ada", target: "#saltmarsh-kiln", message: "good pull 🔥" });
  });
  test("sends tags to those who asked for them", async () => {
    const { irc, port } = await server();
    const ada = await join(port, "ada");
    const message = heard(ada, "privmsg");
    irc.say("#saltmarsh-kiln", saidLine(people[0]!, "#saltmarsh-kiln", "tide!", [], "m7"));
    expect(await message).toMatchObject({
      message: "tide!",
      tags: { msgid: "m7", "izzam/name": "KilnKeeper", "izzam/roles": "streamer", account: "kilnkeeper" },
    });
  });
  test("asks for the password it was given", async () => {
    const { port } = await server({ password: "glaze" });
    await join(port, "ada", { password: "glaze" });
    await expect(join(port, "eve", { password: "wrong" })).rejects.toThrow("no registered");
  });
  test("throws out who floods", async () => {
    const { port } = await server({ floodLines: 5 });
    const ada = await join(port, "ada");
    const gone = heard(ada, "socket close");
    for (let i = 0; i < 8; i += 1) ada.say("#saltmarsh-kiln", `line ${i}`);
    await gone;
  });
});

describe("what the platform marks", () => {
  test("is found again at its places", () => {
    const text = "🔥 tide and gull tide";
    const found = marksFrom(marksOf(text, ["tide", "gull"]), text);
    expect(found.map((m) => [m.id, text.slice(m.start, m.start + m.length)])).toEqual([
      ["tide", "tide"],
      ["gull", "gull"],
      ["tide", "tide"],
    ]);
  });
});
