import { composeWeb, type WebServices } from "../composition/web";
import { readEnv } from "../env";
import { pointPractice } from "./practice";

/** One set of services per process; Next.js bundles pages apart, so the module's own state would be many. */
const key = Symbol.for("izzam.web-services");
type Shared = { [key]?: WebServices };

export function services(): WebServices {
  const shared = globalThis as unknown as Shared;
  if (shared[key] === undefined) {
    shared[key] = composeWeb(readEnv());
    void pointPractice(shared[key]).catch(() => undefined);
  }
  return shared[key];
}
