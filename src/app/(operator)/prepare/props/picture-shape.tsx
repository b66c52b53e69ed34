"use client";
import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { Crop } from "../../../../core/props/crop";
import { pictureDefaults, pictureFactsSchema, type PictureSettings, pictureSettingsSchema } from "../../../../core/props/settings";
import type { PropWithUses, WholePicture as Whole } from "../../../../server/web/props";
import { CropField } from "../../../../ui/crop-field";
import { NumberField } from "../../../../ui/number-field";
import { SpriteView } from "../../../../ui/sprite-view";
import { ShapeFoot } from "./shape-foot";
import { call } from "../../../_frame/call";

/** Cut a picture, or tell its frames; always from the untouched source. */
export function PictureShape({ prop, onSet }: Readonly<{ prop: PropWithUses; onSet: (settings: PictureSettings) => Promise<boolean> }>) {
  const kept = pictureSettingsSchema.safeParse(prop.settings);
  const facts = pictureFactsSchema.safeParse(prop.facts);
  const before = kept.success ? kept.data : pictureDefaults;
  const [s, setS] = useState(before);
  const problem = pictureSettingsSchema.safeParse(s);
  const { crop, grid } = s;
  const edge = (label: string, value: number, min: number, onValue: (v: number) => void) => (
    <Box fontSize="15px">
      {label} <NumberField label={label} value={Math.round(value * 100)} min={min} max={100} unit="%" onSet={(v) => onValue(v / 100)} />
    </Box>
  );
  return (
    <Box>
      {facts.success && (
        <Flex justify="center" bg="raised" borderRadius="8px" p="3" mb="3">
          <SpriteView sprite={{ key: prop.id, word: prop.name, url: prop.url, ...facts.data }} size={180} />
        </Flex>
      )}
      {facts.success && (
        <Text fontSize="15px" color="inkSoft" mb="2">
          The file is {facts.data.sourceWidth} × {facts.data.sourceHeight} pixels.
        </Text>
      )}
      <Text fontWeight="700" fontSize="15px" mb="1">
        Cut
      </Text>
      <WholePicture id={prop.id} crop={crop} onCrop={(next) => setS({ ...s, crop: next })} />
      <Grid templateColumns="1fr 1fr" gap="1" mt="2" mb="3">
        {edge("From left", crop.x, 0, (x) => setS({ ...s, crop: { ...crop, x, width: Math.min(crop.width, 1 - x) } }))}
        {edge("Width", crop.width, 1, (width) => setS({ ...s, crop: { ...crop, width: Math.min(width, 1 - crop.x) } }))}
        {edge("From top", crop.y, 0, (y) => setS({ ...s, crop: { ...crop, y, height: Math.min(crop.height, 1 - y) } }))}
        {edge("Height", crop.height, 1, (height) => setS({ ...s, crop: { ...crop, height: Math.min(height, 1 - crop.y) } }))}
      </Grid>
      <Text fontWeight="700" fontSize="15px">
        Frames in one picture
      </Text>
      <Box fontSize="15px" lineHeight="2.1" mb="3">
        <NumberField
          label="Columns"
          value={grid.columns}
          min={1}
          max={60}
          onSet={(columns) => setS({ ...s, grid: { ...grid, columns, frames: Math.min(300, columns * grid.rows) } })}
        />{" "}
        across and{" "}
        <NumberField
          label="Rows"
          value={grid.rows}
          min={1}
          max={60}
          onSet={(rows) => setS({ ...s, grid: { ...grid, rows, frames: Math.min(300, rows * grid.columns) } })}
        />{" "}
        down,{" "}
        <NumberField
          label="Frames"
          value={grid.frames}
          min={1}
          max={300}
          unit="in all"
          onSet={(frames) => setS({ ...s, grid: { ...grid, frames } })}
        />
        , each for{" "}
        <NumberField label="Time per frame" value={s.frameMs} min={0} max={5_000} unit="ms" onSet={(frameMs) => setS({ ...s, frameMs })} />
        {s.frameMs === 0 ? " (its own time)" : ""}
      </Box>
      <ShapeFoot now={s} before={before} asItCame={pictureDefaults} problem={problem.error?.issues[0]?.message} onSet={onSet} />
    </Box>
  );
}

const mostSide = 190;
/** The picture as it came, with the edges of what is kept of it; nothing where it can't be had just now. */
function WholePicture({ id, crop, onCrop }: Readonly<{ id: string; crop: Crop; onCrop: (crop: Crop) => void }>) {
  const [whole, setWhole] = useState<Whole | null>(null);
  useEffect(() => {
    let here = true;
    void call<Whole>("GET", `/props/${id}/whole`).then((done) => here && done.ok && setWhole(done.value));
    return () => {
      here = false;
    };
  }, [id]);
  if (whole === null) return null;
  const { image, frames, columns, frameWidth, frameHeight } = whole;
  const scale = Math.min(1, mostSide / frameHeight, (mostSide * 1.6) / frameWidth);
  const [width, height] = [frameWidth * scale, frameHeight * scale];
  return (
    <CropField label="What is kept of the picture" crop={crop} onCrop={onCrop}>
      <div
        style={{
          width,
          height,
          backgroundImage: `url(${image})`,
          backgroundSize: `${width * columns}px ${height * Math.ceil(frames / columns)}px`,
        }}
      />
    </CropField>
  );
}
