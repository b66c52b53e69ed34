import render from "dom-serializer";
import { type ChildNode, Element, isTag, type ParentNode } from "domhandler";
import { parseDocument } from "htmlparser2";

/** What only holds others: it is kept around whatever of them is kept. */
const containers = new Set(["svg", "g", "symbol"]);
/** What draws nothing by itself and is used by others. */
const used = new Set(["defs", "linearGradient", "radialGradient", "clipPath", "mask", "symbol", "title", "desc"]);

/**
 * A drawing taken apart: for each of the names that an element bears as its id, the same drawing with nothing but what
 * belongs to it (and to no named element within it); under "" what belongs to none. In the order in which they are drawn.
 * Takes an SVG that was cleaned; every part has its size and its place.
 */
export function svgParts<Name extends string>(clean: string, names: readonly Name[]): ReadonlyMap<Name | "", string> {
  const known = new Set<string>(names);
  const found = new Set<Name | "">();
  const visit = (node: ParentNode, owner: Name | ""): void => {
    for (const child of node.children) {
      if (!isTag(child) || used.has(child.name)) continue;
      // Checked against the names just now.
      const of = known.has(child.attribs["id"] ?? "") ? (child.attribs["id"] as Name) : owner;
      if (containers.has(child.name)) visit(child, of);
      else found.add(of);
    }
  };
  visit(parseDocument(clean, { xmlMode: true }), "");
  const only = (part: Name | ""): string => {
    const document = parseDocument(clean, { xmlMode: true });
    const keep = (node: ParentNode, owner: string): void => {
      node.children = node.children.filter((child: ChildNode): boolean => {
        if (!isTag(child) || used.has(child.name)) return true;
        const id = child.attribs["id"] ?? "";
        const of = known.has(id) ? id : owner;
        if (!containers.has(child.name)) return of === part;
        keep(child, of);
        return child.name === "svg" || child.children.some((c) => c instanceof Element);
      });
    };
    keep(document, "");
    return render(document, { xmlMode: true });
  };
  return new Map([...found].map((part) => [part, only(part)]));
}
