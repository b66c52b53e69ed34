import { mix32 } from "../core/kernel/chance";
import { people } from "./viewers";

/** Pictures of the made-up viewers, drawn from a few motifs; some have none, as on any platform. */
const ink = "#191C26";
const grounds = ["#F0D9A8", "#BFD3C1", "#E7B7A0", "#A9C3D9", "#D9C6E0", "#E8D4C4", "#C9D8A8", "#F2C9B1"] as const;
const paints = ["#B23A2B", "#3F7A74", "#E0A025", "#37598A", "#7A4B8C", "#C7754A", "#5C6F3A", "#8C3F57"] as const;

type Motif = (main: string, other: string) => string;
const eyes = (y: number, gap = 16): string =>
  `<circle cx="${80 - gap}" cy="${y}" r="7" fill="#fff"/><circle cx="${80 + gap}" cy="${y}" r="7" fill="#fff"/><circle cx="${82 - gap}" cy="${y + 1}" r="4" fill="${ink}"/><circle cx="${82 + gap}" cy="${y + 1}" r="4" fill="${ink}"/>`;
const motifs: readonly Motif[] = [
  // a mug
  (m, o) =>
    `<path d="M46 56h60v48q0 16-16 16H62q-16 0-16-16z" fill="${m}"/><path d="M106 66h10q12 0 12 14t-12 14h-10" fill="none"/><path d="M46 72h60" stroke="${o}" stroke-width="8"/>${eyes(92)}<path d="M66 34q8-8 0-16M86 34q8-8 0-16" fill="none"/>`,
  // a fish
  (m, o) =>
    `<path d="M30 80q30-40 72-12l24-16v56l-24-16q-42 28-72-12z" fill="${m}"/><path d="M70 62q12 18 0 36" fill="none" stroke="${o}"/><circle cx="54" cy="74" r="7" fill="#fff"/><circle cx="53" cy="75" r="4" fill="${ink}"/>`,
  // a gull
  (m, o) =>
    `<path d="M80 40q30 0 30 40v20q0 26-30 26t-30-26V80q0-40 30-40z" fill="#FBF8F2"/><path d="M50 90q-20 4-22 26q16 2 26-8zM110 90q20 4 22 26q-16 2-26-8z" fill="${m}"/>${eyes(70, 12)}<path d="M72 84h16l-8 16z" fill="${o}"/>`,
  // a leaf
  (m, o) =>
    `<path d="M80 24q46 36 30 82q-10 20-30 20t-30-20q-16-46 30-82z" fill="${m}"/><path d="M80 40v100M80 72l18-12M80 72L62 60M80 96l18-12M80 96L62 84" fill="none" stroke="${o}"/>`,
  // a boat
  (m, o) =>
    `<path d="M28 98h104q-8 30-30 30H58q-22 0-30-30z" fill="${m}"/><path d="M78 26v68H40z" fill="#FBF8F2"/><path d="M86 38v56h34z" fill="${o}"/><path d="M82 20v78" fill="none"/>`,
  // a moon
  (m, o) =>
    `<path d="M98 28a54 54 0 1 0 30 78a46 46 0 0 1-30-78z" fill="${m}"/><circle cx="66" cy="76" r="5" fill="${ink}"/><path d="M62 98q10 10 22 4" fill="none"/><path d="M120 36l4 9 9 4-9 4-4 9-4-9-9-4 9-4z" fill="${o}"/>`,
  // a lantern
  (m, o) =>
    `<path d="M58 30h44l6 16H52z" fill="${m}"/><rect x="52" y="46" width="56" height="66" rx="8" fill="${o}"/><path d="M80 62q18 22 0 40q-18-18 0-40z" fill="#FFE3A3"/><path d="M48 112h64v12H48z" fill="${m}"/><path d="M68 30q12-18 24 0" fill="none"/>`,
  // a shell
  (m, o) =>
    `<path d="M80 126q-56-30-50-64q6-30 50-32q44 2 50 32q6 34-50 64z" fill="${m}"/><path d="M80 126V34M80 126L52 40M80 126L108 40M80 126L36 64M80 126l44-62" fill="none" stroke="${o}"/>`,
  // a cat
  (m, o) =>
    `<path d="M44 62L40 26l28 20h24l28-20-4 36q10 46-36 58q-46-12-36-58z" fill="${m}"/>${eyes(76)}<path d="M74 92h12l-6 8z" fill="${o}"/><path d="M80 100v6M80 106q-8 8-14 2M80 106q8 8 14 2M40 92l-18-4M40 100l-18 4M120 92l18-4M120 100l18 4" fill="none"/>`,
  // a mushroom
  (m, o) =>
    `<path d="M26 82q4-50 54-50t54 50z" fill="${m}"/><circle cx="60" cy="62" r="8" fill="${o}"/><circle cx="96" cy="54" r="10" fill="${o}"/><circle cx="112" cy="72" r="6" fill="${o}"/><path d="M62 82h36l6 42q-24 10-48 0z" fill="#FBF8F2"/>${eyes(98, 10)}`,
  // a kettle
  (m, o) =>
    `<path d="M44 70h72l10 46q-46 20-92 0z" fill="${m}"/><path d="M58 70q22-20 44 0" fill="${o}"/><path d="M122 84l20-16" stroke-width="12"/><path d="M50 66q30-56 60 0" fill="none" stroke-width="7"/>${eyes(98)}`,
  // somebody with a hat
  (m, o) =>
    `<circle cx="80" cy="86" r="38" fill="#E8C4A0"/><path d="M38 74q42-24 84 0q-2-44-42-44t-42 44z" fill="${m}"/><path d="M26 76q54-26 108 0" fill="none" stroke-width="9"/>${eyes(92)}<path d="M68 108q12 10 24 0" fill="none"/><path d="M60 60q20-8 40 0" stroke="${o}" fill="none"/>`,
];

/** So many of them have no picture. */
const none = 6;
/** The picture of one of the made-up viewers as an SVG; null for who has none, and for nobody. */
export function avatarOf(nick: string): string | null {
  const at = people.findIndex((p) => p.nick === nick);
  if (at < 0 || at % none === none - 1) return null;
  const mark = mix32(at, 77);
  const main = paints[mark % paints.length];
  const other = paints[(mark + 3 + ((mark >>> 9) % 4)) % paints.length];
  const drawn = motifs[(at * 5) % motifs.length]?.(main ?? ink, other ?? ink) ?? "";
  return `<svg xmlns="http://www.w3.org/2000/svg" width="160" height="160" viewBox="0 0 160 160"><rect width="160" height="160" fill="${grounds[(mark >>> 4) % grounds.length]}"/><g stroke="${ink}" stroke-width="5" stroke-linecap="round" stroke-linejoin="round">${drawn}</g></svg>`;
}

const topics = [
  "Mending with gold",
  "Sea glass jewellery",
  "Bread, slowly",
  "Painting boats",
  "Knitting by the stove",
  "Songs of the marsh",
  "A tiny garden",
];
const abouts = ["mostly tea", "makes small things", "lives by the ferry", "collects lids without pots", "up too late", "learning, slowly"];

/** What the rig's platform answers about somebody (RFC 7033): a JRD; null for nobody. `origin` is where it was asked. */
export function jrdOf(resource: string, origin: string): unknown {
  const nick = /^acct:([^@]{1,80})@/.exec(resource)?.[1]?.toLowerCase() ?? "";
  const person = people.find((p) => p.nick === nick || p.name.toLowerCase() === nick);
  if (person === undefined) return null;
  const mark = mix32(people.indexOf(person), 3);
  // A name of the kind that is kept for examples: nobody is behind it.
  const page = `https://marsh.example/${person.nick}`;
  return {
    subject: resource,
    links: [
      { rel: "http://webfinger.net/rel/profile-page", type: "text/html", href: page },
      ...(avatarOf(person.nick) === null
        ? []
        : [{ rel: "http://webfinger.net/rel/avatar", type: "image/svg+xml", href: `${origin}/avatars/${person.nick}` }]),
    ],
    properties: {
      "https://schema.org/headline": topics[mark % topics.length] ?? "",
      "https://schema.org/description": abouts[(mark >>> 5) % abouts.length] ?? "",
    },
  };
}
