"use client";
import { Box, Button, chakra, Flex, Grid, Stack, Text, Textarea } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { type BrimfulSettings, type BrimfulView, brimfulDefaults, brimfulViewSchema } from "../../core/games/brimful/settings";
import { type Shape, shapes } from "../../core/games/brimful/outline";
import { brimfulView } from "../../core/games/brimful/view";
import { freshBrimful } from "../../core/games/brimful/rules";
import { valueAt } from "../../core/words/sentence";
import { ColourField } from "../../ui/colour-field";
import { Dial } from "../../ui/dial";
import { Pick } from "../../ui/pick";
import { RadioTile } from "../../ui/radio-tile";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";
import { geometryOf } from "./geometry";
import { readPath } from "./path";
import { paintBack, paintFront } from "./vessels";

const words: Readonly<Record<Shape, string>> = {
  bowl: "bowl",
  glass: "tall glass",
  teapot: "teapot",
  crucible: "crucible",
  basket: "basket",
  sack: "sack",
  own: "your own",
};

const dials = [
  { path: "looks.lift", label: "Above the lower edge", unit: "%", min: 0, max: 60, step: 1 },
  { path: "looks.room", label: "Room above the rim", unit: "%", min: 5, max: 60, step: 1 },
  { path: "gravity", label: "Gravity", unit: "% of usual", min: 20, max: 250, step: 5 },
  { path: "bounce", label: "Bounce", unit: "% of usual", min: 0, max: 200, step: 5 },
] as const;

/** How the vessel looks and stands, and how things fall in it. */
export function BrimfulLooks({ settings, onChange }: LooksProps) {
  const s = settings as BrimfulSettings;
  const { looks, vessel } = s;
  const set = (key: keyof BrimfulSettings["looks"]) => (value: unknown) => onChange(`looks.${key}`, value);
  return (
    <Stack gap="5">
      <Box role="radiogroup" aria-label="Vessel">
        <Text fontWeight="700" mb="2">
          Vessel
        </Text>
        <Grid templateColumns="repeat(auto-fill, minmax(84px, 1fr))" gap="2">
          {[...shapes, ...(vessel.points.length > 0 ? (["own"] as const) : [])].map((shape) => (
            <RadioTile
              key={shape}
              group="vessel"
              value={shape}
              checked={shape === vessel.shape}
              onPick={() => onChange("vessel.shape", shape)}
              centred
            >
              <VesselPicture settings={{ ...s, vessel: { ...vessel, shape } }} />
              {words[shape]}
            </RadioTile>
          ))}
        </Grid>
        <OwnPath onRead={(points) => onChange("vessel", { ...vessel, shape: "own", points })} />
      </Box>
      <Flex gap="5" wrap="wrap" align="end">
        <ColourField label="Clay" value={looks.clay} onSet={set("clay")} />
        <ColourField label="Glaze inside" value={looks.glaze} onSet={set("glaze")} />
        <ColourField label="Line at the brim" value={looks.line} onSet={set("line")} />
        <Stack gap="1.5">
          <Tick label="Clear, like glass" value={looks.clear} onSet={set("clear")} />
          <Tick label="How full it is, on a tag" value={looks.number} onSet={set("number")} />
          <Tick label="Its outline, while it is set up" value={looks.outlines} onSet={set("outlines")} />
        </Stack>
      </Flex>
      <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr" }} gap="4" alignItems="end">
        <Box>
          <Text fontWeight="700" fontSize="15px" mb="1">
            Stands
          </Text>
          <Pick
            label="Where in its place it stands"
            value={looks.stands}
            options={[
              { value: "left", words: "at the left edge" },
              { value: "middle", words: "in the middle" },
              { value: "right", words: "at the right edge" },
            ]}
            onSet={set("stands")}
          />
        </Box>
        {dials.map(({ path, label, unit, min, max, step }) => (
          <Dial
            key={path}
            label={label}
            unit={unit}
            value={Number(valueAt(s, path))}
            min={min}
            max={max}
            step={step}
            onSet={(v) => onChange(path, Math.round(v))}
          />
        ))}
      </Grid>
    </Stack>
  );
}

function VesselPicture({ settings }: Readonly<{ settings: BrimfulSettings }>) {
  const ref = useRef<HTMLCanvasElement>(null);
  const mark = JSON.stringify([settings.vessel, settings.looks.clay, settings.looks.glaze, settings.looks.clear]);
  useEffect(() => {
    const context = ref.current?.getContext("2d");
    if (context === null || context === undefined) return;
    const looks = { ...settings.looks, room: 30, lift: 4, stands: "middle" as const, outlines: false, number: false };
    const goal = { ...settings.goal, on: false };
    // Made by the game's own rules, so it is one that its schema accepts.
    const view: BrimfulView = brimfulViewSchema.parse(
      brimfulView({ ...brimfulDefaults, ...settings, looks, goal }, freshBrimful(), "overlay"),
    );
    const box = { width: 180, height: 160 };
    const g = geometryOf(view, box);
    const layer = document.createElement("canvas");
    layer.width = box.width;
    layer.height = box.height;
    const front = layer.getContext("2d");
    paintBack(context, view, g, 1);
    if (front === null) return;
    paintFront(front, view, g, 1);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(layer, 0, 0);
    // What it looks like is what it hangs on.
  }, [mark]);
  return (
    <canvas
      ref={ref}
      width={180}
      height={160}
      style={{ width: "90px", height: "80px", margin: "0 auto 4px", background: "#5A5148", borderRadius: "6px" }}
      aria-hidden="true"
    />
  );
}

/** One's own outline: pasted, or read from a file; told at once why it would hold nothing. */
function OwnPath({ onRead }: Readonly<{ onRead: (points: readonly (readonly [number, number])[]) => void }>) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const read = (given: string): void => {
    const said = readPath(given);
    setProblem(said.ok ? "" : said.words);
    if (!said.ok) return;
    setOpen(false);
    setText("");
    onRead(said.points);
  };
  if (!open)
    return (
      <Button size="xs" variant="outline" mt="2" onClick={() => setOpen(true)}>
        Use an outline of your own
      </Button>
    );
  return (
    <Box mt="2" bg="raised" borderRadius="8px" p="3">
      <Text fontSize="15px" mb="2">
        Paste an SVG path, or choose an SVG file: one line from the left rim down and up to the right rim. It is fitted to the vessel’s
        height.
      </Text>
      <Textarea
        aria-label="SVG path of the vessel"
        value={text}
        rows={3}
        fontFamily="mono"
        fontSize="14px"
        placeholder="M0 0 C0 60 20 100 50 100 S100 60 100 0"
        aria-invalid={problem !== ""}
        aria-describedby={problem === "" ? undefined : "path-problem"}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      {problem !== "" && (
        <Text id="path-problem" role="alert" color="brickText" fontSize="15px" mt="1">
          {problem}
        </Text>
      )}
      <Flex gap="2" mt="2" align="center" wrap="wrap">
        <Button size="xs" disabled={text.trim() === ""} onClick={() => read(text)}>
          Use it
        </Button>
        <chakra.label fontSize="15px" cursor="pointer" textDecoration="underline">
          or from a file
          <chakra.input
            type="file"
            accept=".svg,image/svg+xml"
            position="absolute"
            opacity="0"
            width="1px"
            onChange={(e) => {
              const [file] = e.currentTarget.files ?? [];
              e.currentTarget.value = "";
              if (file === undefined) return;
              if (file.size > 2_000_000) setProblem("This file is too large for one outline (more than 2 MB).");
              else void file.text().then(read, () => setProblem("This file could not be read."));
            }}
          />
        </chakra.label>
        <Button size="xs" variant="ghost" onClick={() => setOpen(false)}>
          Never mind
        </Button>
      </Flex>
    </Box>
  );
}
