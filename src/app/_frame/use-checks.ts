"use client";
import { useCallback, useEffect, useMemo, useState } from "react";
import type { Check, liveChecks } from "../../core/rehearsal/checks";
import type { ChecksView } from "../../server/web/rehearsal";
import { call } from "./call";
import { useChanged, useLive } from "./live";
import { useShow } from "./show";

type Told = ChecksView & Readonly<{ live: typeof liveChecks }>;
/** What is worth a look before a show: of the settings, read again when somebody publishes; and of how everything stands now. Null until it is known. */
export function useChecks(wanted: boolean): readonly Check[] | null {
  const [told, setTold] = useState<Told | null>(null);
  const standing = useLive((s) => s.standing);
  const show = useShow();
  const read = useCallback(async () => {
    // The checks know every game; most pages never ask for them.
    const [said, { liveChecks: live }] = await Promise.all([call<ChecksView>("GET", "/checks"), import("../../core/rehearsal/checks")]);
    if (said.ok) setTold({ ...said.value, live });
  }, []);
  useEffect(() => {
    if (wanted) void read();
  }, [wanted, read]);
  useChanged(useCallback(() => void (wanted && read()), [wanted, read]));
  return useMemo(() => {
    if (told === null || standing === null) return null;
    const { health, overlays, pages, games } = standing;
    const live = told.live({ health, overlays, pages, games, plan: show?.plan.items ?? [], modules: told.modules });
    // What keeps it from working stands first.
    return [...live, ...told.checks].sort((a, b) => Number(b.tone === "wrong") - Number(a.tone === "wrong"));
  }, [told, standing, show]);
}
