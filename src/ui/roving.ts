import type { FocusEvent, KeyboardEvent } from "react";

/**
 * Where the focus goes by an arrow, Home or End, in a list of so many in rows of `columns`; null for any other key
 * and where there is nothing further. Pure.
 */
export function nextFocus(key: string, at: number, many: number, columns = 1): number | null {
  const to: Readonly<Record<string, number>> = {
    ArrowLeft: at - 1,
    ArrowRight: at + 1,
    ArrowUp: at - columns,
    ArrowDown: at + columns,
    Home: 0,
    End: many - 1,
  };
  const next = Object.hasOwn(to, key) ? to[key] : undefined;
  return next === undefined || next === at || next < 0 || next >= many ? null : next;
}

const membersOf = (box: HTMLElement): HTMLElement[] => [...box.querySelectorAll<HTMLElement>("[data-rove]")];
/** How many stand beside the first on its line. */
const columnsOf = (members: readonly HTMLElement[]): number => {
  const top = members[0]?.offsetTop;
  const wrapped = members.findIndex((m) => m.offsetTop !== top);
  return wrapped < 1 ? members.length : wrapped;
};

/**
 * One tab stop for a whole group: arrows, Home and End move among what is marked `data-rove` in it, and Tab goes on
 * behind it. Spread over the group; the first member has tabIndex 0, all others -1.
 */
export const roving = {
  onKeyDown: (event: KeyboardEvent<HTMLElement>): void => {
    if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return;
    const members = membersOf(event.currentTarget);
    const at = members.indexOf(event.target as HTMLElement);
    if (at < 0) return;
    const next = nextFocus(event.key, at, members.length, columnsOf(members));
    if (next === null) return;
    event.preventDefault();
    members[next]?.focus();
  },
  /** Whoever has the focus is where Tab comes back to. */
  onFocus: (event: FocusEvent<HTMLElement>): void => {
    const members = membersOf(event.currentTarget);
    if (!members.includes(event.target)) return;
    for (const member of members) member.tabIndex = member === event.target ? 0 : -1;
  },
} as const;
