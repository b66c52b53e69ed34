"use client";
import { Box, Button, chakra, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import Link from "next/link";
import { type Dress, dressDefaults, looks, lookWords } from "../../../../../core/dress/dress";
import { ColourField } from "../../../../../ui/colour-field";
import { RadioTile } from "../../../../../ui/radio-tile";
import { Tick } from "../../../../../ui/tick";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";

/** How each look shows itself in its tile: letters on a panel. */
const tiles: Readonly<
  Record<Dress["look"], Readonly<{ panel: string; letters: string; accent: string; family: string; border: string; weight: number }>>
> = {
  kiln: {
    panel: "#2B2E36",
    letters: "#FFF8E8",
    accent: "#FFE3A3",
    family: '"Bricolage Grotesque Variable"',
    border: "1px solid transparent",
    weight: 700,
  },
  porcelain: {
    panel: "#FBF8F2",
    letters: "#191C26",
    accent: "#8F3B22",
    family: '"Atkinson Hyperlegible Next Variable"',
    border: "4px double #918E88",
    weight: 600,
  },
  linocut: {
    panel: "#7A6A58",
    letters: "#FFF3D6",
    accent: "#F2B63C",
    family: '"Bricolage Grotesque Variable"',
    border: "1px solid transparent",
    weight: 800,
  },
  ledger: {
    panel: "#EFE6D2",
    letters: "#23281F",
    accent: "#7A2E1D",
    family: '"Atkinson Hyperlegible Mono Variable"',
    border: "1px dashed #6B6650",
    weight: 600,
  },
};
const parts = [
  ["panel", "Panels"],
  ["letters", "Letters"],
  ["accent", "What stands out"],
] as const;

/** The look of a whole overlay: everything on it follows at once, here and on air. */
export function Dressing({
  overlay,
  dress,
  owner,
  onDress,
}: Readonly<{ overlay: string; dress: Dress; owner: boolean; onDress: (dress: Dress) => void }>) {
  if (!owner) return null;
  const put = async (next: Dress): Promise<void> => {
    const before = dress;
    onDress(next);
    const done = await call("PATCH", `/overlays/${overlay}/set-up`, { dress: next });
    if (done.ok) return;
    onDress(before);
    tellTrouble(done.words);
  };
  const upload = async (file: File): Promise<void> => {
    const form = new FormData();
    form.set("file", file);
    const said = (await fetch(`/api/overlays/${overlay}/font`, { method: "POST", body: form })
      .then((r) => r.json())
      .catch(() => null)) as Readonly<{ ok: boolean; words?: string; value?: Dress["font"] }> | null;
    if (said?.ok !== true || said.value === undefined) return tellTrouble(said?.words ?? "The font could not be sent. Try again.");
    onDress({ ...dress, font: said.value });
    tell(`Letters of “${said.value.name}” are on air.`, () => void put(dress));
  };
  return (
    <Stack gap="3" data-testid="dressing">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
        Its look
      </Text>
      <Grid templateColumns="1fr 1fr" gap="2" role="radiogroup" aria-label="Look of the overlay">
        {looks.map((look) => (
          <RadioTile key={look} group="look" value={look} checked={look === dress.look} onPick={() => void put({ ...dress, look })}>
            <Box
              aria-hidden="true"
              px="2"
              py="1"
              mb="1"
              borderRadius={look === "kiln" ? "8px" : "2px"}
              fontSize="15px"
              style={{
                background: tiles[look].panel,
                color: tiles[look].letters,
                fontFamily: tiles[look].family,
                border: tiles[look].border,
                fontWeight: tiles[look].weight,
                ...(look === "linocut" ? { textShadow: "0 0 3px #17110d, 0 0 3px #17110d, 0 0 2px #17110d" } : {}),
              }}
            >
              Old Spall 340
            </Box>
            <Text fontWeight="700" fontSize="15px">
              {lookWords[look].name}
            </Text>
            <Text color="inkSoft" fontSize="14px" lineHeight="1.3">
              {lookWords[look].tells}
            </Text>
          </RadioTile>
        ))}
      </Grid>
      <Flex gap="4" wrap="wrap" align="end">
        {parts.map(([part, label]) => (
          <Box key={part}>
            <ColourField
              label={label}
              value={dress.colours[part] === "" ? tiles[dress.look][part] : dress.colours[part]}
              onSet={(value) => void put({ ...dress, colours: { ...dress.colours, [part]: value } })}
            />
            <Text fontSize="14px" color="inkSoft">
              {dress.colours[part] === "" ? "the look’s own" : "yours"}
            </Text>
          </Box>
        ))}
        <Button
          size="xs"
          variant="outline"
          disabled={Object.values(dress.colours).every((c) => c === "")}
          onClick={() => void put({ ...dress, colours: dressDefaults.colours })}
        >
          The look’s colours
        </Button>
      </Flex>
      <Flex gap="2" align="center" wrap="wrap" fontSize="15px">
        <Text>
          Letters: <b>{dress.font.url === "" ? "the look’s own" : dress.font.name}</b>
        </Text>
        <chakra.label
          cursor="pointer"
          textDecoration="underline"
          css={{ "&:has(:focus-visible)": { outline: "3px solid", outlineColor: "slateText" } }}
        >
          Use a font of your own
          <chakra.input
            type="file"
            accept=".woff2,font/woff2"
            position="absolute"
            opacity="0"
            width="1px"
            onChange={(e) => {
              const [file] = e.currentTarget.files ?? [];
              e.currentTarget.value = "";
              if (file !== undefined) void upload(file);
            }}
          />
        </chakra.label>
        {dress.font.url !== "" && (
          <Button size="xs" variant="ghost" onClick={() => void put({ ...dress, font: dressDefaults.font })}>
            Take it off
          </Button>
        )}
      </Flex>
      <Text fontSize="15px">
        <Link href="/prepare/motion">How things move</Link> in each look
      </Text>
      <Tick
        label="Captions: what is heard is written at the foot"
        value={dress.captions}
        onSet={(captions) => void put({ ...dress, captions })}
      />
    </Stack>
  );
}
