"use client";
import { counted } from "../../../../core/words/sentence";
import { Box, Button, chakra, Flex, Input, Menu, Portal, Text } from "@chakra-ui/react";
import { ChevronDown, Plus } from "lucide-react";
import Papa from "papaparse";
import { useRef, useState } from "react";
import { itemsFrom, linesOf, type ReadRundown, rundownColumns, type RundownLine, rundownFileSchema } from "../../../../core/show/files";
import { newPlanItem, planSchema, type PlanItem } from "../../../../core/show/plan";
import { inOrder } from "../../../../core/show/order";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { sendCommand, useShow, wallClock } from "../../../_frame/show";
import type { Available } from "../_effects/available";
import { type Named, type NamedGame, PlanLine } from "./plan-line";

const freshId = (): string => `p${Array.from(crypto.getRandomValues(new Uint32Array(2)), (n) => n.toString(36)).join("")}`;
type Props = Readonly<{ cues: readonly Named[]; games: readonly NamedGame[]; available: Available }>;

/** The planned order of the next show, or of the one that runs: what stands here stands on the tape. */
export function Rundown({ cues, games, available }: Props) {
  const show = useShow();
  const file = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState<ReadRundown | null>(null);
  const [name, setName] = useState("");
  // What was changed here is shown at once; changes are sent one after another, each upon the one before.
  const latest = useRef<Readonly<{ items: readonly PlanItem[]; revision: number }> | null>(null);
  const sent = useRef<Promise<unknown>>(Promise.resolve());
  const [, again] = useState(0);
  if (show !== null && show.plan.revision >= (latest.current?.revision ?? 0)) latest.current = show.plan;
  if (show === null || latest.current === null)
    return (
      <Text color="inkSoft" p="5">
        Asking for the rundown…
      </Text>
    );
  const { items } = latest.current;
  const names = { cues, games };
  const change = (to: (items: readonly PlanItem[]) => readonly PlanItem[]): Promise<boolean> => {
    const base = latest.current ?? show.plan;
    const checked = planSchema.safeParse(to(base.items));
    if (!checked.success) {
      tellTrouble(`${checked.error.issues[0]?.message ?? "This can’t be kept."} Nothing was changed.`);
      return Promise.resolve(false);
    }
    latest.current = { items: checked.data, revision: base.revision + 1 };
    again((n) => n + 1);
    const work = sent.current.then(async () => {
      const notes = await sendCommand("show", { do: "plan", revision: base.revision, items: checked.data });
      const no = notes?.find((n) => n.refusal !== undefined)?.refusal;
      if (notes !== null && no === undefined) return true;
      latest.current = null;
      again((n) => n + 1);
      if (no !== undefined)
        tellTrouble(`${String(no.facts["by"]) || "Somebody"} changed the rundown meanwhile. It is shown as it is now; do it once more.`);
      return false;
    });
    sent.current = work;
    return work;
  };
  const put = (next: readonly PlanItem[]): Promise<boolean> => change(() => next);
  const set = (id: string, part: Partial<PlanItem>): void => void change((all) => all.map((i) => (i.id === id ? { ...i, ...part } : i)));
  const remove = async (item: PlanItem): Promise<void> => {
    // What waited for it starts by hand from now on.
    const rest = items
      .filter((i) => i.id !== item.id)
      .map((i): PlanItem => (i.starts.how === "after" && i.starts.item === item.id ? { ...i, starts: { how: "hand" } } : i));
    if (await put(rest)) tell(`${item.title} was taken out.`, () => void put(items));
  };
  const add = (): void => {
    const last = inOrder(items).at(-1);
    void put([...items, newPlanItem(freshId(), "Something new", last === undefined ? 0 : Math.min(1_440, last.atMin + 10))]);
  };
  const save = (text: string, type: string, ending: string): void => {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = `rundown.${ending}`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1_000);
  };
  const csv = (): void =>
    save(
      Papa.unparse({ fields: [...rundownColumns], data: linesOf(items, names).map((l) => rundownColumns.map((c) => l[c])) }),
      "text/csv",
      "csv",
    );
  const json = (): void => save(JSON.stringify({ rundown: linesOf(items, names) }, null, 2), "application/json", "json");
  const take = async (chosen: File | undefined): Promise<void> => {
    if (file.current !== null) file.current.value = "";
    if (chosen === undefined) return;
    if (chosen.size > 200_000) return tellTrouble("This file is larger than a rundown can be. Nothing was changed.");
    const text = await chosen.text();
    if (text.trimStart().startsWith("{")) {
      let given: unknown = null;
      try {
        given = JSON.parse(text);
      } catch {
        return tellTrouble("This file is not valid JSON. Nothing was changed.");
      }
      const parsed = rundownFileSchema.safeParse(given);
      if (!parsed.success) return tellTrouble(`This file holds no rundown: ${parsed.error.issues[0]?.message ?? ""} Nothing was changed.`);
      return setRead(itemsFrom(parsed.data.rundown as Partial<RundownLine>[], names, freshId, 1));
    }
    const parsed = Papa.parse<Partial<RundownLine>>(text, {
      header: true,
      skipEmptyLines: "greedy",
      transformHeader: (h) => h.trim().toLowerCase(),
    });
    if (!(parsed.meta.fields ?? []).includes("title"))
      return tellTrouble(`The first line of the file must name the columns: ${rundownColumns.join(", ")}. Nothing was changed.`);
    if (parsed.data.length > 60) return tellTrouble("A rundown holds at most 60 things. Nothing was changed.");
    setRead(itemsFrom(parsed.data, names, freshId));
  };
  const template = async (what: "save" | "use" | "remove", id: string, called: string): Promise<void> => {
    const notes = await sendCommand("show", { do: "template", what, id, name: called });
    const no = notes?.find((n) => n.refusal !== undefined);
    if (notes === null || no !== undefined)
      return no === undefined ? undefined : tellTrouble("A template needs a name, and there are at most 20.");
    if (what === "save") {
      setName("");
      tell(`Saved as the template “${called}”.`);
    } else if (what === "use") tell(`The rundown is now “${called}”.`, () => void put(items));
    else tell(`The template “${called}” was removed.`);
  };
  const running = show.show;
  return (
    <Box px="5" pt="4">
      <Flex align="baseline" gap="3" wrap="wrap">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="22px" flex="1">
          {running === null ? "Rundown of the next show" : "Rundown of this show"}
        </Text>
        <Menu.Root positioning={{ placement: "bottom-end" }}>
          <Menu.Trigger asChild>
            <Button size="sm" variant="ghost">
              Templates <ChevronDown size={15} aria-hidden="true" />
            </Button>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content minW="300px">
                {show.templates.length === 0 && (
                  <Text px="2" py="1.5" color="inkSoft">
                    None is saved yet.
                  </Text>
                )}
                {show.templates.map((t) => (
                  <Menu.Item key={t.id} value={`use.${t.id}`} onClick={() => void template("use", t.id, t.name)}>
                    Use “{t.name}”, {counted(t.things, "thing")}
                  </Menu.Item>
                ))}
                {show.templates.map((t) => (
                  <Menu.Item key={t.id} value={`remove.${t.id}`} color="brickText" onClick={() => void template("remove", t.id, t.name)}>
                    Remove “{t.name}”
                  </Menu.Item>
                ))}
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
        <Menu.Root positioning={{ placement: "bottom-end" }}>
          <Menu.Trigger asChild>
            <Button size="sm" variant="ghost">
              Files <ChevronDown size={15} aria-hidden="true" />
            </Button>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content>
                <Menu.Item value="in" onClick={() => file.current?.click()}>
                  Import CSV or JSON
                </Menu.Item>
                <Menu.Item value="csv" onClick={csv}>
                  Export as CSV
                </Menu.Item>
                <Menu.Item value="json" onClick={json}>
                  Export as JSON
                </Menu.Item>
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
        <chakra.input
          ref={file}
          type="file"
          accept=".csv,.json,text/csv,application/json"
          display="none"
          aria-label="A rundown file"
          onChange={(e) => void take(e.currentTarget.files?.[0])}
        />
      </Flex>
      <Text color="inkSoft" mb="3">
        What is planned stands right of now on the booth’s tape. It starts by hand there, or by itself where you say so here. It is kept as
        you write it.
      </Text>
      {read !== null && (
        <Box bg="blank" borderRadius="8px" px="4" py="3" mb="3" role="alert">
          <Text fontWeight="700">
            {counted(read.items.length, "thing")} can be taken from this file
            {read.problems.length > 0
              ? `, ${read.problems.length} ${read.problems.length === 1 ? "line has" : "lines have"} a problem`
              : ""}
            .
          </Text>
          {read.problems.slice(0, 12).map((p) => (
            <Text key={`${p.line}${p.says}`} fontSize="15px">
              Line {p.line}: {p.says}
            </Text>
          ))}
          <Flex gap="2" mt="2">
            <Button
              size="sm"
              colorPalette="ochre"
              fontWeight="700"
              disabled={read.items.length === 0}
              onClick={() => {
                void put(read.items).then((done) => done && tell("The rundown was taken from the file.", () => void put(items)));
                setRead(null);
              }}
            >
              Replace the rundown
            </Button>
            <Button size="sm" variant="outline" onClick={() => setRead(null)}>
              Leave it
            </Button>
          </Flex>
        </Box>
      )}
      {items.length === 0 && (
        <Text bg="raised" borderRadius="10px" p="4">
          Nothing is planned yet. Add the first thing, or use a template.
        </Text>
      )}
      <Box role="list" aria-label="Rundown">
        {inOrder(items).map((item) => (
          <PlanLine
            key={item.id}
            item={item}
            items={items}
            cues={cues}
            games={games}
            available={available}
            state={show.done.some((d) => d.item === item.id) ? "done" : show.skipped.includes(item.id) ? "skipped" : ""}
            clock={running === null ? "" : wallClock(running.sinceMs + item.atMin * 60_000)}
            onSet={(part) => set(item.id, part)}
            onRemove={() => void remove(item)}
          />
        ))}
      </Box>
      <Flex mt="3" gap="3" wrap="wrap" align="center">
        <Button variant="outline" disabled={items.length >= 60} onClick={add}>
          <Plus size={16} aria-hidden="true" /> Add a thing
        </Button>
        <Box flex="1" />
        <Input
          size="sm"
          width="220px"
          aria-label="Name of the template"
          placeholder="Name for a template"
          maxLength={60}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button
          size="sm"
          variant="outline"
          disabled={name.trim() === "" || items.length === 0}
          onClick={() => void template("save", "", name.trim())}
        >
          Save as a template
        </Button>
      </Flex>
    </Box>
  );
}
