import type { Alert } from "../../core/alerts/alert";
import type { Bus } from "../ports/bus";

/**
 * A bus that lets nothing pass that is only drawn, while it is quiet: what is jumped over would come too late, and a page that
 * draws ten minutes in one can't be used. `passed` is told of alerts that nobody will show.
 */
export const quietBus = (bus: Bus, isQuiet: () => boolean, passed: (alert: Alert) => void): Bus => ({
  subscribe: bus.subscribe,
  publish: (channel, publication) => {
    if (!isQuiet() || (publication.kind !== "effects" && publication.kind !== "alert")) bus.publish(channel, publication);
    else if (publication.kind === "alert") passed(publication.alert);
  },
});
