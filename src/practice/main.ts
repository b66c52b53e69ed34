import { fileURLToPath } from "node:url";
import { EventSender } from "./events";
import { IrcServer } from "./irc-server";
import { PracticeStudio } from "./studio";
import { practiceWeb } from "./web";

/** The practice rig: a chat server on loopback with a page on which one is any of the made-up viewers. */
const port = Number(process.env["IZZAM_PRACTICE_PORT"]);
const ircPort = Number(process.env["IZZAM_PRACTICE_IRC_PORT"]);
const folder = (name: string): string => fileURLToPath(new URL(name, import.meta.url));

const irc: IrcServer = new IrcServer({ onHeard: ({ nick, text }) => web.heard(nick, text) });
const izzam = `http://127.0.0.1:${process.env["IZZAM_PORT"] ?? "4470"}`;
const pad = (process.env["IZZAM_PRACTICE_TRIGGERS"] ?? "")
  .split(",")
  .map((pair) => pair.split("="))
  .filter((pair): pair is [string, string] => pair.length === 2)
  .map(([cue, token]) => ({ name: cue.replace(/-/g, " "), url: `${izzam}/trigger/${token}` }));
const events = new EventSender(`${izzam}/events/saltmarsh-kiln`, process.env["IZZAM_PRACTICE_SECRET"] ?? "");
const studio = new PracticeStudio();
const web = practiceWeb({ irc, studio, demo: folder("./demo/"), page: folder("./practice-page/"), events, pad });

const stop = async (): Promise<void> => {
  await web.close();
  await irc.close();
  process.exit(0);
};
process.on("SIGTERM", () => void stop());
process.on("SIGINT", () => void stop());
process.on("disconnect", () => void stop());

await irc.listen(ircPort);
await web.listen(port);
process.send?.({ ready: true });
