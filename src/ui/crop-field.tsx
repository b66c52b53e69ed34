"use client";
import "react-image-crop/dist/ReactCrop.css";
import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";
import ReactCrop from "react-image-crop";
import type { Crop } from "../core/props/crop";

const percent = (share: number): number => Math.round(share * 10_000) / 100;
const share = (given: number): number => Math.max(0, Math.min(1, Math.round(given * 100) / 10_000));

/** What is kept of a picture, by its edges: dragged, or moved by the arrow keys where an edge has the focus. */
export function CropField({
  label,
  crop,
  onCrop,
  children,
}: Readonly<{ label: string; crop: Crop; onCrop: (crop: Crop) => void; children: ReactNode }>) {
  return (
    <Box
      role="group"
      aria-label={label}
      display="flex"
      justifyContent="center"
      bg="raised"
      borderRadius="8px"
      p="2"
      css={{ "& .ReactCrop": { maxWidth: "100%" } }}
    >
      <ReactCrop
        crop={{ unit: "%", x: percent(crop.x), y: percent(crop.y), width: percent(crop.width), height: percent(crop.height) }}
        keepSelection
        ruleOfThirds
        minWidth={8}
        minHeight={8}
        ariaLabels={{
          cropArea: "What is kept: the arrow keys move it",
          nwDragHandle: "Upper left corner: the arrow keys move it",
          nDragHandle: "Upper edge: the arrow keys move it",
          neDragHandle: "Upper right corner: the arrow keys move it",
          eDragHandle: "Right edge: the arrow keys move it",
          seDragHandle: "Lower right corner: the arrow keys move it",
          sDragHandle: "Lower edge: the arrow keys move it",
          swDragHandle: "Lower left corner: the arrow keys move it",
          wDragHandle: "Left edge: the arrow keys move it",
        }}
        onChange={(_, { x, y, width, height }) => {
          const [left, top] = [share(x), share(y)];
          onCrop({
            x: left,
            y: top,
            width: Math.max(0.01, Math.min(share(width), 1 - left)),
            height: Math.max(0.01, Math.min(share(height), 1 - top)),
          });
        }}
      >
        {children}
      </ReactCrop>
    </Box>
  );
}
