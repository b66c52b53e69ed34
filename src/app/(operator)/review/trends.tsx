"use client";
import { Box, chakra, Flex, Table, Text } from "@chakra-ui/react";
import { scaleBand, scaleLinear } from "d3-scale";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { figure, type MeasureId, measureOf, measures, type ShowFigures, trendInWords, trendOf } from "../../../core/review/trends";
import { moneyInWords } from "../../../core/signals/money-words";
import { AsTable } from "../../../ui/as-table";
import { Pick } from "../../../ui/pick";
import { call } from "../../_frame/call";

type Told = Readonly<{ shows: readonly ShowFigures[]; points: string; home: string }>;
const [width, height] = [860, 150];
const [left, bottom, top] = [6, 22, 22];
const Svg = chakra("svg", {
  base: { width: "100%", height: "auto", display: "block", "& text": { fontSize: "13px", fill: "inkSoft", fontFamily: "mono" } },
});
const Bar = chakra("rect", { base: { fill: "slateText", cursor: "pointer", "&[data-chosen]": { fill: "ochre.solid" } } });
const Line = chakra("line", { base: { stroke: "line" } });
const day = (ms: number): string => new Date(ms).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
const calledOf = ({ name, fromMs }: ShowFigures): string => (name === "" ? `Show of ${day(fromMs)}` : name);

/** The last shows beside each other: how it goes, in one sentence and one picture; and any two of them side by side. */
export function Trends() {
  const router = useRouter();
  const [told, setTold] = useState<Told | null>(null);
  const [trouble, setTrouble] = useState("");
  const [measure, setMeasure] = useState<MeasureId>("messages");
  const [pair, setPair] = useState<readonly [number, number] | null>(null);
  useEffect(() => {
    void call<Told>("GET", "/review/trends").then((said) => {
      if (!said.ok) return setTrouble(said.words);
      setTold(said.value);
      const [last, before] = [said.value.shows.at(-1), said.value.shows.at(-2)];
      if (last !== undefined && before !== undefined) setPair([before.id, last.id]);
    });
  }, []);
  if (trouble !== "")
    return (
      <Text role="alert" color="brickText" mb="4">
        {trouble}
      </Text>
    );
  if (told === null)
    return (
      <Text color="inkSoft" mb="4" role="status">
        Counting the last shows…
      </Text>
    );
  const { points, home } = told;
  if (told.shows.length === 0) return null;
  const { of } = measureOf(measure);
  // Of a show whose log is gone some things are not known.
  const shows = told.shows.filter((s) => of(s) !== null);
  const wordsOf = (id: MeasureId): string => measureOf(id).words.replace("{points}", points);
  const shown = (n: number | null, id: MeasureId): string =>
    n === null ? "–" : id === "tipped" ? moneyInWords(Math.round(n), home) : figure(n);
  const values = shows.map((s) => of(s) ?? 0);
  const x = scaleBand<number>(
    shows.map((s) => s.id),
    [left, width - left],
  ).padding(0.22);
  const y = scaleLinear([0, Math.max(1e-9, ...values)], [height - bottom, top]);
  const trend = trendOf(values);
  const sentence = trendInWords(trend, wordsOf(measure), (n) => shown(n, measure));
  // As many days below as have room.
  const every = Math.ceil(shows.length / 12);
  return (
    <Box as="section" aria-labelledby="trends" mb="8" data-testid="trends">
      <Flex align="baseline" gap="3" wrap="wrap" mb="1">
        <Text as="h2" id="trends" fontFamily="heading" fontWeight="700" fontSize="19px">
          How it goes
        </Text>
        <Pick
          label="What shows are compared by"
          value={measure}
          options={measures.map((m) => ({ value: m.id, words: m.words.replace("{points}", points) }))}
          onSet={(value) => setMeasure(value as MeasureId)}
        />
      </Flex>
      <Text fontSize="17px" fontWeight="600" mb="2" data-testid="trend">
        {sentence}
      </Text>
      {shows.length < told.shows.length && (
        <Text color="inkSoft" fontSize="15px" mb="1">
          Of {told.shows.length - shows.length} earlier shows the log is gone, or was never kept: this is not known of them.
        </Text>
      )}
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`${wordsOf(measure)} in the last ${shows.length} shows. ${sentence}`}>
        <Line x1={left} x2={width - left} y1={height - bottom} y2={height - bottom} />
        {shows.map((s, i) => {
          const value = of(s) ?? 0;
          const at = x(s.id) ?? 0;
          return (
            <g key={s.id}>
              <Bar
                x={at}
                width={x.bandwidth()}
                y={y(value)}
                height={Math.max(1, height - bottom - y(value))}
                rx="2"
                data-chosen={pair?.includes(s.id) === true ? "" : undefined}
                onClick={() => router.push(`/review/shows/${s.id}`)}
              >
                <title>{`${calledOf(s)}: ${shown(value, measure)} ${wordsOf(measure)}`}</title>
              </Bar>
              {shows.length <= 16 && (
                <text x={at + x.bandwidth() / 2} y={y(value) - 5} textAnchor="middle">
                  {shown(value, measure)}
                </text>
              )}
              {(shows.length - 1 - i) % every === 0 && (
                <text
                  // The last of many would be cut at the edge.
                  x={i === shows.length - 1 && shows.length > 12 ? width - left : at + x.bandwidth() / 2}
                  y={height - 6}
                  textAnchor={i === shows.length - 1 && shows.length > 12 ? "end" : "middle"}
                >
                  {day(s.fromMs)}
                </text>
              )}
            </g>
          );
        })}
      </Svg>
      {pair !== null && (
        <Text fontSize="14px" color="inkSoft">
          Ochre: the two that stand side by side below.
        </Text>
      )}
      <AsTable head={["Show", wordsOf(measure)]} rows={shows.map((s) => [calledOf(s), shown(of(s), measure)])} />
      {pair !== null && <Compared shows={told.shows} pair={pair} onPair={setPair} shown={shown} wordsOf={wordsOf} />}
    </Box>
  );
}

/** Two shows side by side, by everything they are compared by. */
function Compared({
  shows,
  pair,
  onPair,
  shown,
  wordsOf,
}: Readonly<{
  shows: readonly ShowFigures[];
  pair: readonly [number, number];
  onPair: (pair: readonly [number, number]) => void;
  shown: (n: number | null, id: MeasureId) => string;
  wordsOf: (id: MeasureId) => string;
}>) {
  const options = [...shows].reverse().map((s) => ({ value: String(s.id), words: calledOf(s) }));
  const [a, b] = pair.map((id) => shows.find((s) => s.id === id));
  return (
    <Table.Root
      size="sm"
      mt="4"
      bg="transparent"
      css={{ "& tr": { background: "transparent" } }}
      aria-label="Two shows side by side"
      variant="line"
    >
      <Table.Header>
        <Table.Row>
          <Table.ColumnHeader>Side by side</Table.ColumnHeader>
          {pair.map((id, i) => (
            <Table.ColumnHeader key={i} textAlign="right">
              <Pick
                label={i === 0 ? "The one show" : "The other show"}
                value={String(id)}
                options={options}
                onSet={(value) => onPair(i === 0 ? [Number(value), pair[1]] : [pair[0], Number(value)])}
                width="220px"
              />
            </Table.ColumnHeader>
          ))}
          <Table.ColumnHeader textAlign="right">The other, to the one</Table.ColumnHeader>
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {measures.map(({ id, of }) => {
          const [one, other] = [a === undefined ? null : of(a), b === undefined ? null : of(b)];
          const change = one === null || other === null || one === 0 ? null : Math.round((other / one - 1) * 100);
          return (
            <Table.Row key={id}>
              <Table.Cell>{wordsOf(id)}</Table.Cell>
              <Table.Cell textAlign="right" fontFamily="mono">
                {shown(one, id)}
              </Table.Cell>
              <Table.Cell textAlign="right" fontFamily="mono">
                {shown(other, id)}
              </Table.Cell>
              <Table.Cell textAlign="right" fontFamily="mono" color="inkSoft">
                {change === null ? "–" : change === 0 ? "the same" : `${change > 0 ? "+" : "−"}${Math.abs(change)} %`}
              </Table.Cell>
            </Table.Row>
          );
        })}
      </Table.Body>
    </Table.Root>
  );
}
