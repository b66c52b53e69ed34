/** How large what is brought may be, in bytes; a page says no before it sends more. */
const megabyte = 1024 * 1024;
export const mostZipBytes = 120 * megabyte;
export const mostFilmBytes = 64 * megabyte;
export const mostShowBytes = 80 * megabyte;
export const mostChatLogBytes = 12 * megabyte;
/** A film that a viewer sends from their own page. */
export const mostViewerFilmBytes = 40 * megabyte;
/** Pictures and sounds. */
export const mostPropBytes = 12 * megabyte;
export const inMegabytes = (bytes: number): number => bytes / megabyte;

const films = /\.(webm|mp4|mov|gif)$/i;
/** What a file of this name may have as a prop. */
export const mostOf = (name: string): number => (/\.zip$/i.test(name) ? mostZipBytes : films.test(name) ? mostFilmBytes : mostPropBytes);
export const tooLargeInWords = (most: number): string => `The file is larger than ${inMegabytes(most)} MB.`;
