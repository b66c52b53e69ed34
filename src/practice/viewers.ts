/** The made-up people of Saltmarsh Kiln's chat. `badges` as our practice platform names them. */
export type Person = Readonly<{ nick: string; name: string; badges: readonly string[] }>;

const plain = [
  "quietferry",
  "hollowreed",
  "tin_lantern",
  "pale_oar",
  "smallharbour",
  "ferrule7",
  "brambleandson",
  "lowtideliv",
  "wickerman_no",
  "saltyturnip",
  "eelgrass",
  "driftnet_dee",
  "copperkettle",
  "millpondmo",
  "owlclover",
  "thirdshelf",
  "bisquefire",
  "slipstream_sal",
  "ashglaze",
  "loamy",
  "pebbledash",
  "nettlewine",
  "cobblekin",
  "marshlight",
  "otterly_fine",
  "gusset",
  "raku_rita",
  "fogbank",
  "hemlock_hat",
  "ninepins",
];
const members = ["mossy_teapot", "oatcake_ada", "kelpforest", "plumbline", "sundaykiln", "tidewrack"];
const guests = ["grandad_grog", "seaglass_sia"];

export const people: readonly Person[] = [
  { nick: "kilnkeeper", name: "KilnKeeper", badges: ["streamer"] },
  { nick: "spongebearer", name: "SpongeBearer", badges: ["moderator"] },
  { nick: "wedgewright", name: "WedgeWright", badges: ["moderator", "member"] },
  ...guests.map((nick) => ({ nick, name: nick, badges: ["guest"] })),
  ...members.map((nick) => ({ nick, name: nick, badges: ["member"] })),
  ...plain.map((nick) => ({ nick, name: nick, badges: [] })),
];

export const lines: readonly string[] = [
  "that rim!",
  "is the vase thrown in one piece?",
  "hello from the ferry",
  "what glaze is that",
  "centred on the first try",
  "so smooth",
  "the kiln sounds hungry",
  "my cat wants that bowl",
  "first time here, hello",
  "careful with the foot",
  "how hot does it get?",
  "that wobble saved it",
  "pull it higher",
  "is this stoneware?",
  "I dropped mine last week",
  "the blue one please",
  "good pull",
  "trim it thinner",
  "love the sound of wet clay",
  "what time is the firing?",
  "more grog",
  "it leans a little",
  "that is a handsome mug",
  "lurking and glazing",
];
export const emoji: readonly string[] = ["🔥", "🏺", "😮", "👏", "💛", "🌊", "🫖", "🎉"];
