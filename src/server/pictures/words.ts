/** Why a picture was refused. */
const words: Readonly<Record<string, string>> = {
  "picture/empty": "The file is empty.",
  "picture/too-large": "The file is too large: emotes may have 2 MB, other pictures 8 MB. Make it smaller and add it again.",
  "picture/unknown-kind": "This is not a PNG, SVG, GIF or WebP picture, whatever its name says.",
  "picture/too-complex":
    "The drawing is too complex to be drawn safely: too many shapes, too deep, or shapes that use each other over and over. Simplify it, or export it as a PNG.",
  "picture/broken": "The picture can’t be read: the file is damaged.",
  "picture/too-many-frames": "The animation has more than 300 frames. Shorten it and add it again.",
  "picture/too-many-pixels": "The picture is wider or higher than 4,096 pixels.",
  "picture/nothing-visible": "The picture shows nothing: every pixel is transparent.",
};
export const pictureRefusalInWords = (code: string): string => words[code] ?? code;
