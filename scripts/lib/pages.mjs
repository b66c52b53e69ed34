// Viewer pages without a browser, for the run of faults: each is tied to a chat name, and buys by the page's own code.
import { join } from "node:path";
import { root } from "./system.mjs";

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** What the page of a viewer runs when they buy. */
const pageCode = "src/app/c/[channel]/send.ts";

async function bundled() {
  const { build } = await import("esbuild");
  const { outputFiles } = await build({
    entryPoints: [join(root, pageCode)],
    bundle: true,
    write: false,
    format: "iife",
    globalName: "page",
    footer: { js: "return page;" },
  });
  return outputFiles[0].text;
}

/** `wrong` gathers what may not happen; `prices` tells what each reward costs now. */
export async function pagesOf({ base, channel, prices, saySomething, wrong }) {
  const code = await bundled();

  /** Loads the page's code anew, as a reload does: what it keeps in `stored` stays, all else is gone. */
  const load = ({ cookie, stored }) => {
    const sessionStorage = {
      getItem: (key) => stored.get(key) ?? null,
      setItem: (key, value) => void stored.set(key, value),
      removeItem: (key) => void stored.delete(key),
    };
    const asked = (path, init) =>
      fetch(`${base}${path}`, { ...init, headers: { ...init.headers, origin: base, cookie }, signal: AbortSignal.timeout(15_000) });
    return new Function("fetch", "sessionStorage", code)(asked, sessionStorage);
  };

  /** A viewer page, as a browser has it: a cookie of its own, tied to a chat name by a code. */
  const pageOf = async (viewer) => {
    const head = { "content-type": "application/json", origin: base };
    for (let i = 0; i < 10; i += 1) {
      const asked = await fetch(`${base}/api/viewer/${channel}/code`, { method: "POST", headers: head, body: "{}" });
      const cookie = (asked.headers.get("set-cookie") ?? "").split(";")[0];
      const { value } = await asked.json();
      if (value?.code !== undefined) {
        await saySomething(viewer, value.code);
        for (let j = 0; j < 60; j += 1) {
          const mine = await fetch(`${base}/api/viewer/${channel}/mine`, { headers: { cookie } });
          if (mine.status === 200) return { viewer, cookie, stored: new Map() };
          await wait(50);
        }
      }
      await wait(200);
    }
    throw new Error(`the page of ${viewer} was never tied to them`);
  };

  /** Pressed until the page takes an answer for final, and reloaded in between. Whether the page said that it was done. */
  const press = async (page, where, about, body) => {
    for (let i = 0; i < 200; i += 1) {
      const { send } = load(page);
      const done = await send(channel, where, about, body(), () => undefined);
      // What is still kept has not been answered: it is the same request the next time.
      if (![...page.stored.keys()].some((key) => key.endsWith(` ${about}`))) return done;
      if (done) wrong.push(`${page.viewer} was told that ${about} was done, and would ask for it again`);
      await wait(200);
    }
    wrong.push(`${page.viewer} never heard what came of ${about}`);
    return false;
  };
  const buy = (page, reward) => press(page, "buy", reward, () => ({ reward, text: "", price: prices().get(reward) ?? 0 }));
  /** Something in a game, as its part of the viewer page does it. */
  const act = (page, game, what, more = {}) => press(page, "act", game, () => ({ game, do: what, ...more }));
  return { pageOf, buy, act };
}
