import { setPriority } from "node:os";
import { composeLab } from "../composition/lab";
import { readEnv } from "../env";
import { runWorker } from "../run-worker";
import { LabWorker } from "./worker";

// The process of the odds lab. The show comes first: whatever else runs here goes before a question.
setPriority(10);
runWorker(composeLab(readEnv()), (deps) => new LabWorker(deps));
