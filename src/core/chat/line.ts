/**
 * One line of IRC (RFC 2812 section 2.3.1, with IRCv3 message tags). Tags stay raw text: most lines need
 * two of them or none, and turning all of them into a map costs more than the rest of the work together.
 */
export type Line = Readonly<{
  tags: string;
  /** Server name or nick; empty when the line carries no prefix. */
  from: string;
  command: string;
  params: readonly string[];
}>;

/** Longest line taken: 8,191 bytes of tags and 512 of message, as IRCv3 allows, in UTF-16 units. */
export const longestLine = 8703;

/** Parses a line without its line end. Returns null for what is not a message; never throws. */
export function parseLine(line: string): Line | null {
  let at = 0;
  let tags = "";
  const end = line.length;
  if (end === 0 || end > longestLine) return null;
  if (line.charCodeAt(0) === 64) {
    const space = line.indexOf(" ");
    if (space < 0) return null;
    tags = line.slice(1, space);
    at = space + 1;
    while (line.charCodeAt(at) === 32) at += 1;
  }
  let from = "";
  if (line.charCodeAt(at) === 58) {
    const space = line.indexOf(" ", at);
    if (space < 0) return null;
    const bang = line.indexOf("!", at);
    from = line.slice(at + 1, bang > 0 && bang < space ? bang : space);
    at = space + 1;
    while (line.charCodeAt(at) === 32) at += 1;
  }
  const params: string[] = [];
  let command = "";
  while (at < end) {
    if (line.charCodeAt(at) === 58 && command !== "") {
      params.push(line.slice(at + 1));
      break;
    }
    let space = line.indexOf(" ", at);
    if (space < 0) space = end;
    if (space > at) {
      const word = line.slice(at, space);
      if (command === "") command = word;
      else params.push(word);
    }
    at = space + 1;
  }
  // Nearly every line is this one, so it is not asked the long way.
  if (command !== "PRIVMSG" && !/^(?:[A-Za-z]+|[0-9]{3})$/.test(command)) return null;
  return { tags, from, command, params };
}

/** The unescaped value of one tag; "" when it stands without a value, null when it is absent. */
export function tagValue(tags: string, name: string): string | null {
  let at = 0;
  while (at <= tags.length) {
    const found = tags.indexOf(name, at);
    if (found < 0) return null;
    const after = found + name.length;
    const code = tags.charCodeAt(after);
    if ((found === 0 || tags.charCodeAt(found - 1) === 59) && (after === tags.length || code === 61 || code === 59)) {
      if (code !== 61) return "";
      const stop = tags.indexOf(";", after);
      const raw = tags.slice(after + 1, stop < 0 ? tags.length : stop);
      return raw.includes("\\") ? unescapeTag(raw) : raw;
    }
    at = after;
  }
  return null;
}

const escapes: Readonly<Record<string, string>> = { ":": ";", s: " ", "\\": "\\", r: "\r", n: "\n" };

/** IRCv3 message tags, "Escaping values": a lone backslash at the end is dropped. */
export const unescapeTag = (raw: string): string =>
  raw.replace(/\\(.?)/gs, (_, next: string) => (Object.hasOwn(escapes, next) ? (escapes[next] ?? next) : next));

export const escapeTag = (value: string): string =>
  value.replace(/[\\; \r\n]/g, (c) => (c === ";" ? "\\:" : c === " " ? "\\s" : c === "\r" ? "\\r" : c === "\n" ? "\\n" : "\\\\"));

/** Writes one line, without its line end. Line breaks and NUL in parameters become spaces. */
export function formatLine(
  command: string,
  params: readonly string[],
  extra: { from?: string; tags?: Readonly<Record<string, string>> } = {},
): string {
  const clean = params.map((p) => p.replace(/[\r\n\0]/g, " "));
  const last = clean.length - 1;
  const body = clean.map((p, i) => (i === last && (p === "" || p.includes(" ") || p.startsWith(":")) ? `:${p}` : p));
  const tags = Object.entries(extra.tags ?? {}).map(([k, v]) => (v === "" ? k : `${k}=${escapeTag(v)}`));
  return `${tags.length > 0 ? `@${tags.join(";")} ` : ""}${extra.from ? `:${extra.from} ` : ""}${[command, ...body].join(" ")}`;
}
