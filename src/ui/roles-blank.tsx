"use client";
import type { Role } from "../core/signals/names";
import { Blank } from "./blank";

/** A blank in a sentence that says who may: everyone, or some roles. */
export const RolesBlank = ({
  label,
  roles,
  first = false,
  onSet,
}: Readonly<{ label: string; roles: readonly Role[]; /** It begins the sentence. */ first?: boolean; onSet: (roles: Role[]) => void }>) => {
  const text = roles.includes("viewer") ? "everyone" : roles.length === 1 ? "one role" : `${roles.length} roles`;
  return (
    <Blank
      blank={{ path: "roles", label, text: first ? text.replace(/^[eo]/, (c) => c.toUpperCase()) : text, field: { kind: "roles" } }}
      value={roles}
      // Its boxes hand back what was chosen among the roles.
      onChange={(chosen) => onSet(chosen as Role[])}
    />
  );
};
