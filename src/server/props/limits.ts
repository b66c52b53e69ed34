import { mostSoundBytes } from "../sounds/sound";

/** How large the file of a prop may be, films apart. */
export const mostPropBytes = mostSoundBytes;
