import { composeMedia } from "../composition/media";
import { readEnv } from "../env";
import { runWorker } from "../run-worker";
import { MediaWorker } from "./worker";

// The process that makes moving pictures.
runWorker(composeMedia(readEnv()), (deps) => new MediaWorker(deps));
