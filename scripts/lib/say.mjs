// What the commands say while they work: one line a step, with its time where it took any.
export const say = (text) => console.log(text);
export async function step(what, work) {
  const from = Date.now();
  process.stdout.write(`· ${what} … `);
  try {
    const value = await work();
    const ms = Date.now() - from;
    process.stdout.write(`${ms < 950 ? "done" : `done in ${(ms / 1000).toFixed(1)} s`}\n`);
    return value;
  } catch (error) {
    process.stdout.write("failed\n");
    throw error;
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
