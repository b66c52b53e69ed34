"use client";
import { Box } from "@chakra-ui/react";
import { useState } from "react";
import { initialsOf } from "../core/pictures/initials";

/** Somebody's face: initials at once, and over them the picture, when there is one that may be shown. */
export function Face({ name, facesUrl, size = 32 }: Readonly<{ name: string; facesUrl: string; size?: number }>) {
  const src = facesUrl.replace("{name}", encodeURIComponent(name));
  const [none, setNone] = useState("");
  const { letters, colour } = initialsOf(name);
  return (
    <Box
      as="span"
      position="relative"
      display="inline-flex"
      flexShrink="0"
      alignItems="center"
      justifyContent="center"
      width={`${size}px`}
      height={`${size}px`}
      borderRadius="full"
      overflow="hidden"
      verticalAlign="middle"
      color="#FFF8E8"
      fontWeight="700"
      fontSize={`${Math.round(size * 0.44)}px`}
      lineHeight="1"
      aria-hidden="true"
      data-face={src === "" || none === src ? "initials" : "picture"}
      style={{ background: colour }}
    >
      {letters}
      {src !== "" && none !== src && (
        <Box asChild position="absolute" inset="0" width="100%" height="100%" objectFit="cover">
          <img src={src} alt="" loading="lazy" onError={() => setNone(src)} />
        </Box>
      )}
    </Box>
  );
}
