"use client";
import { Button, Flex } from "@chakra-ui/react";
import { frontOf } from "../../core/games/fronts";
import { startOf } from "../../core/module/field-of";
import { tell } from "../../ui/toaster";
import { useLive } from "./live";
import { commandAndTell, theShow, useShow } from "./show";

/** What can be done about one person: what games do to somebody by name, and whether their picture is shown. */
export function OnPerson({ person }: Readonly<{ person: Readonly<{ id: string; name: string }> }>) {
  const games = useLive((s) => s.standing?.games) ?? [];
  const hidden = useShow()?.noFaces?.find((f) => f.id === person.id);
  const face = (on: boolean): Promise<boolean> => commandAndTell(theShow, { do: "face", id: person.id, name: person.name, on }, tell);
  return (
    <Flex gap="2" wrap="wrap">
      {games.flatMap((game) =>
        Object.entries(frontOf(game.kind)?.actions ?? {}).flatMap(([act, action]) =>
          action.person === undefined
            ? []
            : [
                <Button
                  key={`${game.id} ${act}`}
                  size="sm"
                  variant="outline"
                  onClick={() => void commandAndTell(game, { ...startOf(action.input), [action.person ?? ""]: person.name, do: act }, tell)}
                >
                  {action.label}
                </Button>,
              ],
        ),
      )}
      <Button size="sm" variant="outline" onClick={() => void face(hidden !== undefined)}>
        {hidden === undefined ? "Hide their picture" : hidden.own ? "Show their picture (they hid it)" : "Show their picture again"}
      </Button>
    </Flex>
  );
}
