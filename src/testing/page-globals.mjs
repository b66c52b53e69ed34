import { TextDecoder, TextEncoder } from "node:util";

// What every browser has and the page that jsdom makes has not.
globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder;
