/** What an SVG may ask of whoever draws it. Ours have a few hundred shapes at most. */
export const most = { bytes: 1_000_000, elements: 5_000, depth: 64, pathUnits: 200_000, drawn: 20_000, dashes: 16 } as const;

type Node = { tag: string; refs: string[]; cost: number; inside: Node[]; id: string };
const tagPattern = /<(\/?)([A-Za-z][\w:.-]*)((?:"[^"]*"|'[^']*'|[^"'>])*?)(\/?)>/g;
const attribute = (text: string, name: string): string =>
  new RegExp(`(?:^|\\s)${name}\\s*=\\s*(?:"([^"]*)"|'([^']*)')`)
    .exec(text)
    ?.slice(1)
    .find((v) => v !== undefined) ?? "";
const refPattern = /(?:href|mask|clip-path|fill|stroke)\s*=\s*["']\s*(?:url\(\s*["']?)?#([\w.-]+)/g;
/** Whatever is drawn through a mask is drawn aside first. */
const asideCost = 4;

/** Deeper or longer than anybody draws: said before anything is built from the text. */
export function isTooLong(text: string): boolean {
  if (text.length > most.bytes) return true;
  let depth = 0;
  let elements = 0;
  for (let at = text.indexOf("<"); at >= 0; at = text.indexOf("<", at + 1)) {
    const next = text.charCodeAt(at + 1);
    if (next === 47) depth -= 1;
    else if (next !== 33 && next !== 63) {
      elements += 1;
      const close = text.indexOf(">", at);
      if (close < 0 || text.charCodeAt(close - 1) !== 47) depth += 1;
    }
    if (elements > most.elements || depth > most.depth) return true;
  }
  return false;
}

/**
 * Whether drawing it would take too long: what is used again counts each time it is used, through as many
 * steps as there are, and what is masked counts several times. Takes a text that was cleaned.
 */
export function isTooHeavy(clean: string): boolean {
  const root: Node = { tag: "", refs: [], cost: 0, inside: [], id: "" };
  const open: Node[] = [root];
  const byId = new Map<string, Node>();
  let units = 0;
  for (const [, closing, tag = "", given = "", self] of clean.matchAll(tagPattern)) {
    if (closing === "/") {
      if (open.length > 1) open.pop();
      continue;
    }
    const path = attribute(given, "d").length + attribute(given, "points").length;
    units += path;
    const dashes = attribute(given, "stroke-dasharray")
      .split(/[\s,]+/)
      .filter((d) => d !== "");
    if (path > most.pathUnits || units > most.pathUnits * 2 || dashes.length > most.dashes) return true;
    // A dash far shorter than the line it is on makes as many pieces as there is room for.
    if (dashes.some((d) => Number.parseFloat(d) > 0 && Number.parseFloat(d) < 0.05) || (dashes.length > 0 && path > 5_000)) return true;
    const refs = [...given.matchAll(refPattern)].map((m) => m[1] ?? "");
    const aside = /(?:^|\s)(?:mask|clip-path)\s*=/.test(given) ? asideCost : 1;
    const node: Node = { tag, refs, cost: aside, inside: [], id: attribute(given, "id") };
    open[open.length - 1]?.inside.push(node);
    if (node.id !== "") byId.set(node.id, node);
    if (self !== "/") open.push(node);
  }
  const known = new Map<Node, number>();
  const under = new Set<Node>();
  const costOf = (node: Node): number => {
    const before = known.get(node);
    if (before !== undefined) return before;
    // Round and round: no renderer should be asked.
    if (under.has(node)) return Infinity;
    under.add(node);
    let cost = node.cost;
    for (const part of node.inside) cost += costOf(part);
    for (const ref of node.refs) {
      const target = byId.get(ref);
      if (target !== undefined) cost += costOf(target);
    }
    under.delete(node);
    const sum = node.cost > 1 ? cost * asideCost : cost;
    known.set(node, sum);
    return sum;
  };
  return costOf(root) > most.drawn;
}
