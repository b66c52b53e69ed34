import { type Decoder, decoderOf } from "../decode/decoder";
import { work } from "../decode/jobs";

/** In this very process, for tests of what is made of files; it brings all that opens them into it. */
export const inProcessDecoder: Decoder = decoderOf(work, () => undefined);
