import type { Result } from "../../core/kernel/refusal";
import type { Voice } from "../../core/speech/voice";

/**
 * Speaks a text: a WAV, as the engine makes it. Refused are `speech/none` (the engine is not there), `speech/late` (it took too
 * long, and was ended), `speech/failed`. Never throws.
 */
export type Speaker = Readonly<{ speak: (text: string, voice: Voice) => Promise<Result<Buffer>> }>;
