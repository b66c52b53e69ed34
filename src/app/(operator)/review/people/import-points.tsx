"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { count, counted } from "../../../../core/words/sentence";
import type { ListReport } from "../../../../server/web/people";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";

const box = { px: "2", borderWidth: "1px", borderColor: "line", borderRadius: "6px", bg: "ground", fontSize: "15px" } as const;
const freshKey = (): string => `list-${Array.from(crypto.getRandomValues(new Uint32Array(2))).join("-")}`;

/** Points from elsewhere, as CSV: looked at first, line by line; taken in only then. */
export function ImportPoints({ name, onDone }: Readonly<{ name: string; onDone: () => void }>) {
  const [text, setText] = useState("");
  const [why, setWhy] = useState("brought along");
  const [report, setReport] = useState<ListReport | null>(null);
  const [busy, setBusy] = useState(false);
  const key = useRef(freshKey());
  const send = async (dry: boolean): Promise<void> => {
    setBusy(true);
    const said = await call<ListReport>("POST", "/people/import", { text, why, dry, key: key.current });
    setBusy(false);
    if (!said.ok) return tellTrouble(said.words);
    if (dry) return setReport(said.value);
    tell(`${counted(said.value.good, "viewer")} got ${count(said.value.points)} ${name}.`);
    setReport(null);
    setText("");
    key.current = freshKey();
    onDone();
  };
  const bad = report?.lines.filter((l) => l.problem !== "") ?? [];
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px">
        Import a list
      </Text>
      <Text color="inkSoft" mb="3">
        CSV with a column <b>name</b> and a column <b>points</b> (an <b>id</b> too, where you have one), or just two columns. What is in the
        list is added to what viewers have. Nothing changes before you have seen every line’s outcome.
      </Text>
      <chakra.textarea
        {...box}
        aria-label="The list, as CSV"
        rows={8}
        width="100%"
        py="2"
        fontFamily="mono"
        placeholder={`name,points\nmossy_teapot,120\nquietferry,85`}
        value={text}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setReport(null);
        }}
      />
      <Flex gap="3" align="center" wrap="wrap" my="2">
        <chakra.label display="flex" gap="2" alignItems="center">
          Why
          <chakra.input {...box} minH="36px" width="240px" maxLength={120} value={why} onChange={(e) => setWhy(e.currentTarget.value)} />
        </chakra.label>
        <Button size="sm" variant="outline" asChild>
          <label>
            From a file
            <input
              type="file"
              hidden
              accept=".csv,.txt,text/csv"
              onChange={(e) => {
                const file = e.currentTarget.files?.[0];
                void file?.text().then((t) => {
                  setText(t);
                  setReport(null);
                });
                e.currentTarget.value = "";
              }}
            />
          </label>
        </Button>
        <Button size="sm" variant="outline" loading={busy && report === null} disabled={text.trim() === ""} onClick={() => void send(true)}>
          See what it would do
        </Button>
      </Flex>
      {report !== null && (
        <Box role="region" aria-label="What it would do">
          <Text mb="2">
            <b>
              {counted(report.good, "viewer")} would get {count(report.points)} {name}
            </b>
            {report.bad === 0 ? "; every line can be used." : `; ${counted(report.bad, "line")} can’t be used and would be left out:`}
          </Text>
          {bad.length > 0 && (
            <Box
              as="ul"
              maxH="200px"
              overflowY="auto"
              tabIndex={0}
              mb="2"
              fontSize="15px"
              bg="raised"
              borderRadius="8px"
              p="3"
              listStyleType="none"
            >
              {bad.map((l) => (
                <li key={l.line}>
                  Line {l.line}
                  {l.name === "" ? "" : `, ${l.name}`}: {l.problem}
                </li>
              ))}
            </Box>
          )}
          <Text color="inkSoft" fontSize="15px" mb="2">
            {count(report.lines.filter((l) => l.problem === "" && !l.known).length)} of them have no account here yet and get one.
          </Text>
          <Button colorPalette="ochre" fontWeight="700" loading={busy} disabled={report.good === 0} onClick={() => void send(false)}>
            Take {count(report.good)} in
          </Button>
        </Box>
      )}
    </Box>
  );
}
