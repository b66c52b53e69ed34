import { close, open, write } from "node:fs";

/** What may wait for the disk, in bytes. A log that can't be written must not fill the memory instead. */
const mostWaiting = 1024 * 1024;
/** After a write that failed, the next is tried so much later. */
const againMs = 2_000;

/**
 * A log that is only ever added to. It never fails and never throws: lines that can't be written are dropped and
 * counted, and the log says how many once there is room again. A disk that is full ends no process this way.
 *
 * `ways` are the calls it writes with, for tests.
 */
export function logFile(path, ways = { open, write, close }) {
  let fd = null;
  let busy = false;
  let ended = false;
  let waiting = [];
  let size = 0;
  let dropped = 0;
  let notBefore = 0;
  let why = "";

  const linesIn = (data) => Math.max(1, data.toString("latin1").split("\n").length - 1);
  const drop = (pieces) => {
    for (const piece of pieces) dropped += linesIn(piece);
  };
  const finish = () => {
    if (ended && !busy && fd !== null) {
      const last = fd;
      fd = null;
      ways.close(last, () => undefined);
    }
  };
  const failed = (error, pieces) => {
    drop(pieces);
    why = error?.code === "ENOSPC" || error?.code === "EDQUOT" ? "the disk was full" : `it could not be written (${error?.code ?? error})`;
    notBefore = Date.now() + againMs;
    busy = false;
    finish();
  };
  /** All of it: a disk that is nearly full takes a part. */
  const put = (data, pieces, done) =>
    ways.write(fd, data, 0, data.length, null, (error, written) => {
      if (error) failed(error, pieces);
      else if (written < data.length) put(data.subarray(written), pieces, done);
      else done();
    });
  const flush = () => {
    if (busy || waiting.length === 0) return finish();
    busy = true;
    if (fd === null)
      return ways.open(path, "a", 0o600, (error, opened) => {
        if (error) {
          const pieces = waiting;
          [waiting, size] = [[], 0];
          return failed(error, pieces);
        }
        fd = opened;
        busy = false;
        flush();
      });
    const pieces = waiting;
    [waiting, size] = [[], 0];
    const missing = dropped;
    const note = missing === 0 ? "" : `… ${missing === 1 ? "1 line is" : `${missing} lines are`} missing here: ${why}.\n`;
    put(Buffer.concat([Buffer.from(note), ...pieces]), pieces, () => {
      dropped -= missing;
      busy = false;
      flush();
    });
  };

  return {
    write: (data) => {
      const piece = Buffer.from(data);
      if (Date.now() < notBefore || size + piece.length > mostWaiting) return drop([piece]);
      waiting.push(piece);
      size += piece.length;
      flush();
    },
    end: () => {
      ended = true;
      flush();
    },
    get dropped() {
      return dropped;
    },
  };
}
