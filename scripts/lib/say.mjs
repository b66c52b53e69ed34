// What the commands say while they work: one line a step, with its time where it took any.
export const say = (text) => console.log(text);
/**
 * One line a step. What takes long tells what it waits for: `pending` names it, as words, each with what it last
 * logged. There is no limit: whoever waits can see that it goes on, and end it.
 */
export async function step(what, work, pending = () => []) {
  const from = Date.now();
  process.stdout.write(`· ${what} … `);
  let told = false;
  const tell = () => {
    const waits = pending();
    if (waits.length === 0) return;
    const seconds = Math.round((Date.now() - from) / 1000);
    for (const { name, last } of waits) {
      const words = seconds < 20 ? "" : last === "" ? ". It has logged nothing yet" : `. It last logged: ${last}`;
      process.stdout.write(`${told ? "" : "\n"}  waiting for ${name}, ${seconds} s${words}\n`);
      told = true;
    }
  };
  const first = setTimeout(tell, 8_000);
  const again = setInterval(tell, 20_000);
  const end = (words) => process.stdout.write(`${told ? `· ${what}: ` : ""}${words}\n`);
  try {
    const value = await work();
    const ms = Date.now() - from;
    end(ms < 950 ? "done" : `done in ${(ms / 1000).toFixed(1)} s`);
    return value;
  } catch (error) {
    end("failed");
    throw error;
  } finally {
    clearTimeout(first);
    clearInterval(again);
  }
}

/** The last line that says something, of what a process wrote; of a log line in JSON, its words and its error. */
export function lastLogged(text) {
  const line = text.trimEnd().split("\n").at(-1)?.trim() ?? "";
  try {
    const { msg = "", err = "" } = JSON.parse(line);
    return [msg, String(err).split("\n")[0]]
      .filter((part) => part !== "")
      .join(": ")
      .slice(0, 300);
  } catch {
    return line.slice(0, 300);
  }
}
/** An error that is told without a stack: the user can do something about it. */
export class Trouble extends Error {}
export function endWith(error) {
  console.error(error instanceof Trouble ? `\n${error.message}` : error);
  process.exit(1);
}
/** Whether a file was started by itself, rather than imported. */
export const isMain = (url) => process.argv[1] !== undefined && url === new URL(process.argv[1], "file:///").href;
