import type { Sample } from "../../module/game";
import { commanded, one, sampleViewer } from "../../module/samples";
import type { Role } from "../../signals/names";

const dayMs = 86_400_000;
const arrives = (
  id: string,
  label: string,
  key: string | undefined,
  weight: number,
  shows: number,
  days: number | null,
  roles: readonly Role[] = [],
): Sample => ({
  id,
  label,
  ...(key === undefined ? {} : { key }),
  weight,
  make: ({ times, nowMs }) => {
    const { name } = sampleViewer(times, roles);
    // Another viewer each time: nobody is greeted twice.
    const viewer = { id: `${name}-${times}`, name, roles };
    return one(`${name} writes for the first time in this show`, {
      kind: "arrival",
      viewer,
      shows,
      beforeMs: days === null ? null : nowMs - days * dayMs,
    });
  },
});

export const greetingSamples: readonly Sample[] = [
  arrives("regular", "Somebody known", "q", 8, 12, 3),
  arrives("fresh", "Somebody new", "w", 4, 1, null),
  arrives("away", "After a long time", "e", 3, 5, 90),
  arrives("member", "A member", "r", 3, 30, 2, ["member"]),
  arrives("moderator", "A moderator", undefined, 1, 80, 1, ["moderator"]),
  {
    id: "many",
    label: "Twenty at once",
    key: "t",
    weight: 0,
    make: ({ times }) => ({
      says: "twenty write at once",
      signals: Array.from({ length: 20 }, (_, i) => ({
        afterMs: i * 60,
        signal: {
          kind: "arrival" as const,
          viewer: { ...sampleViewer(times + i), id: `many-${times}-${i}` },
          shows: 1 + i,
          beforeMs: null,
        },
      })),
    }),
  },
  {
    id: "raid",
    label: "A raid",
    key: "y",
    weight: 1,
    make: ({ times }) => ({
      says: `${sampleViewer(times).name} raids, and eight come along`,
      signals: [
        { afterMs: 0, signal: { kind: "raid", viewer: sampleViewer(times), viewers: 30 } },
        ...Array.from({ length: 8 }, (_, i) => ({
          afterMs: 400 + i * 300,
          signal: {
            kind: "arrival" as const,
            viewer: { ...sampleViewer(times + 1 + i), id: `raid-${times}-${i}` },
            shows: 1,
            beforeMs: null,
          },
        })),
      ],
    }),
  },
  { id: "skip", label: "Skip", key: "i", weight: 1, make: () => one("you end what is shown", commanded({ do: "skip" })) },
  { id: "clear", label: "Drop who waits", weight: 1, make: () => one("you drop who waits", commanded({ do: "clear" })) },
];
