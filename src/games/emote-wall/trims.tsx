"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from "lucide-react";
import type { Trim, WallSettings } from "../../core/games/emote-wall/settings";
import { mostTrims } from "../../core/games/emote-wall/limits";
import { IconButton } from "../../ui/icon-button";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import type { LooksProps } from "../shown";

const today = (): string => new Date().toISOString().slice(0, 10);
const newTrim = (picture: string): Trim => ({
  id: `t${Date.now().toString(36)}`,
  picture,
  when: "always",
  from: today(),
  to: today(),
  size: 60,
  x: 0,
  y: -45,
});

/** What emotes wear: each a sentence. Its number is its name for rules and cues. */
export function WallTrims({ settings, sprites, onChange }: LooksProps) {
  const { trims } = settings as WallSettings;
  const pictures = sprites.filter((s) => s.key.startsWith("prop:") || s.key.startsWith("own:"));
  const put = (next: readonly Trim[]): void => onChange("trims", next);
  const set = (id: string, part: Partial<Trim>): void => put(trims.map((t) => (t.id === id ? { ...t, ...part } : t)));
  const swap = (i: number, k: number): void => {
    const next = [...trims];
    const [a, b] = [next[i], next[k]];
    if (a === undefined || b === undefined) return;
    next[i] = b;
    next[k] = a;
    put(next);
  };
  return (
    <Box mt="5">
      <Flex align="baseline" gap="3" mb="2" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          Trimmings
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          {trims.length === 0
            ? "Emotes may wear something: a picture over each of them."
            : "Rules, cues and flocks name them by their number."}
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={trims.length >= mostTrims || pictures.length === 0}
          onClick={() => put([...trims, newTrim(pictures[0]?.key ?? "")])}
        >
          <Plus size={15} aria-hidden="true" /> Add
        </Button>
      </Flex>
      {pictures.length === 0 && <Text color="inkSoft">There are no pictures yet to wear. Add one under Props.</Text>}
      <Stack gap="1" role="list" aria-label="Trimmings">
        {trims.map((trim, i) => (
          <Flex
            key={trim.id}
            role="listitem"
            bg="raised"
            borderRadius="8px"
            px="3"
            py="1.5"
            gap="2"
            align="center"
            fontSize="15.5px"
            data-trim={i + 1}
          >
            <Text fontFamily="mono" fontWeight="700">
              {i + 1}
            </Text>
            <Box flex="1" lineHeight="2.1">
              Emotes wear{" "}
              <Pick
                label={`Picture of trimming ${i + 1}`}
                value={trim.picture}
                options={pictures.map((p) => ({ value: p.key, words: p.word }))}
                width="160px"
                onSet={(picture) => set(trim.id, { picture })}
              />{" "}
              <Pick
                label={`When trimming ${i + 1} is worn`}
                value={trim.when}
                options={[
                  { value: "always", words: "always" },
                  { value: "dates", words: "between days" },
                  { value: "told", words: "when they are told to" },
                ]}
                onSet={(when) => set(trim.id, { when: when as Trim["when"] })}
              />
              {trim.when === "dates" && (
                <>
                  {" "}
                  <Day
                    label={`First day of trimming ${i + 1}`}
                    value={trim.from}
                    onSet={(from) => set(trim.id, { from, to: trim.to < from ? from : trim.to })}
                  />{" "}
                  and{" "}
                  <Day
                    label={`Last day of trimming ${i + 1}`}
                    value={trim.to}
                    onSet={(to) => set(trim.id, { to, from: trim.from > to ? to : trim.from })}
                  />
                </>
              )}
              ,{" "}
              <NumberField
                label={`Size of trimming ${i + 1}`}
                value={trim.size}
                min={10}
                max={200}
                unit="%"
                onSet={(size) => set(trim.id, { size })}
              />{" "}
              as large,{" "}
              <NumberField
                label={`Trimming ${i + 1} to the right`}
                value={trim.x}
                min={-100}
                max={100}
                unit="%"
                onSet={(x) => set(trim.id, { x })}
              />{" "}
              to the right and{" "}
              <NumberField
                label={`Trimming ${i + 1} up`}
                value={-trim.y}
                min={-100}
                max={100}
                unit="%"
                onSet={(up) => set(trim.id, { y: up === 0 ? 0 : -up })}
              />{" "}
              up.
            </Box>
            <IconButton label={`Move trimming ${i + 1} up`} disabled={i === 0} onClick={() => swap(i, i - 1)}>
              <ArrowUp size={15} />
            </IconButton>
            <IconButton label={`Move trimming ${i + 1} down`} disabled={i === trims.length - 1} onClick={() => swap(i, i + 1)}>
              <ArrowDown size={15} />
            </IconButton>
            <IconButton
              label={`Copy trimming ${i + 1}`}
              disabled={trims.length >= mostTrims}
              onClick={() => put([...trims, { ...trim, id: newTrim("").id }])}
            >
              <Copy size={15} />
            </IconButton>
            <IconButton label={`Take trimming ${i + 1} out`} onClick={() => put(trims.filter((t) => t.id !== trim.id))}>
              <Trash2 size={15} />
            </IconButton>
          </Flex>
        ))}
      </Stack>
    </Box>
  );
}

function Day({ label, value, onSet }: Readonly<{ label: string; value: string; onSet: (value: string) => void }>) {
  return (
    <chakra.input
      type="date"
      aria-label={label}
      value={value}
      onChange={(e) => e.currentTarget.value !== "" && onSet(e.currentTarget.value)}
      bg="blank"
      borderBottomWidth="2px"
      borderColor="ochreText"
      borderRadius="4px 4px 0 0"
      px="1.5"
      fontWeight="700"
      minH="30px"
    />
  );
}
