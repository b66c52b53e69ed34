"use client";
import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import { scaleBand, scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import type { ReactNode } from "react";
import { count, counted } from "../../../../core/words/sentence";
import type { PointsCharts } from "../../../../server/ports/points-store";
import { AsTable } from "../../../../ui/as-table";

const width = 590;
const short = (n: number): string =>
  Math.abs(n) >= 1_000_000
    ? `${Math.round(n / 100_000) / 10} M`
    : Math.abs(n) >= 1_000
      ? `${Math.round(n / 100) / 10} k`
      : String(Math.round(n));
const monthNames = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
/** Of a month as 2026-05: May. */
const monthName = (month: string): string => monthNames[Number(month.slice(5, 7)) - 1] ?? month;
const dayOf = (ms: number): string => {
  const [, month, day] = new Date(ms).toISOString().slice(0, 10).split("-");
  return `${Number(day)} ${monthNames[Number(month) - 1] ?? ""}`;
};
const share = (a: number, b: number): number => (b === 0 ? 0 : Math.round((a / b) * 100));

/** What was made and spent, where it goes, who holds it: each chart says its message in a sentence first. */
export function Charts({ charts, name }: Readonly<{ charts: PointsCharts; name: string }>) {
  const { months, shows, rewards, holders } = charts;
  if (months.length === 0)
    return (
      <Text px="5" py="8" color="inkSoft" maxW="640px" mx="auto">
        No {name} were made yet. When viewers earn and spend some, you see here how much comes in, where it goes, and whether prices keep
        up.
      </Text>
    );
  return (
    <Grid templateColumns={{ base: "1fr", xl: "1fr 1fr" }} gap="4" px="5" py="4" maxW="1300px" mx="auto">
      <PerShow shows={shows} name={name} />
      <There months={months} name={name} />
      <Where rewards={rewards} name={name} />
      <Holders holders={holders} name={name} />
    </Grid>
  );
}

function Card({
  title,
  says,
  children,
  rows,
}: Readonly<{ title: string; says: string; children: ReactNode; rows: readonly (readonly string[])[] }>) {
  const [head = [], ...body] = rows;
  return (
    <Box bg="raised" borderWidth="1px" borderColor="line" borderRadius="10px" p="4" pb="2" minW="0">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
        {title}
      </Text>
      <Text mb="1" fontSize="15.5px">
        {says}
      </Text>
      {children}
      <AsTable head={head} rows={body} />
    </Box>
  );
}
const Svg = chakra("svg", {
  base: { width: "100%", height: "auto", display: "block", "& text": { fontSize: "14px", fill: "inkSoft", fontFamily: "mono" } },
});
const Mark = chakra("g");

/** Made above the line, spent below it; told apart by side and pattern, not by colour alone. */
function PerShow({ shows, name }: Readonly<{ shows: PointsCharts["shows"]; name: string }>) {
  const height = 200;
  const x = scaleBand<number>(
    shows.map((_, i) => i),
    [46, width],
  ).padding(0.25);
  const most = Math.max(1, ...shows.flatMap((s) => [s.made, s.spent]));
  const y = scaleLinear([0, most], [0, (height - 40) / 2]);
  const mid = (height - 20) / 2;
  const last = shows[shows.length - 1];
  const back = share(
    shows.reduce((s, x_) => s + x_.spent, 0),
    shows.reduce((s, x_) => s + x_.made, 0),
  );
  return (
    <Card
      title="Made and spent, show by show"
      says={
        last === undefined
          ? "No show has ended yet."
          : `The last show made ${count(last.made)} ${name} and took ${count(last.spent)} back; over these ${shows.length} shows ${back} % came back.`
      }
      rows={[["Show", "Made", "Spent"], ...shows.map((s) => [dayOf(s.fromMs), count(s.made), count(s.spent)])]}
    >
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Made and spent in the last ${shows.length} shows`}>
        <defs>
          <pattern id="spent" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <Mark color="ochreText">
              <rect width="6" height="6" fill="currentColor" opacity="0.35" />
              <rect width="2.5" height="6" fill="currentColor" />
            </Mark>
          </pattern>
        </defs>
        {shows.map((s, i) => (
          <g key={s.fromMs}>
            <Mark color="mossText">
              <rect x={x(i)} y={mid - y(s.made)} width={x.bandwidth()} height={y(s.made)} fill="currentColor">
                <title>{`${dayOf(s.fromMs)}: ${count(s.made)} made`}</title>
              </rect>
            </Mark>
            <rect x={x(i)} y={mid + 1} width={x.bandwidth()} height={y(s.spent)} fill="url(#spent)">
              <title>{`${dayOf(s.fromMs)}: ${count(s.spent)} spent`}</title>
            </rect>
            {i % 6 === 0 && (
              <text x={(x(i) ?? 0) + x.bandwidth() / 2} y={height - 3} textAnchor="middle">
                {dayOf(s.fromMs)}
              </text>
            )}
          </g>
        ))}
        <Mark color="line">
          <line x1="46" x2={width} y1={mid} y2={mid} stroke="currentColor" />
        </Mark>
        <text x="0" y={mid - y(most) + 10}>
          {short(most)}
        </text>
        <text x="0" y={mid - 6}>
          made
        </text>
        <text x="0" y={mid + 16}>
          spent
        </text>
      </Svg>
    </Card>
  );
}

function There({ months, name }: Readonly<{ months: PointsCharts["months"]; name: string }>) {
  const height = 200;
  const x = scaleLinear([0, Math.max(1, months.length - 1)], [46, width - 10]);
  const y = scaleLinear([0, Math.max(1, ...months.map((m) => m.there))], [height - 24, 14]).nice(3);
  const of = months.map((m, i) => [x(i), y(m.there)] as [number, number]);
  const [before, last] = [months[months.length - 2], months[months.length - 1]];
  const grew = before === undefined || last === undefined || before.there === 0 ? null : Math.round((last.there / before.there - 1) * 100);
  return (
    <Card
      title="How much there is"
      says={`Viewers hold ${count(last?.there ?? 0)} ${name}${grew === null ? "." : grew > 0 ? `, ${grew} % more than a month before: ${grew > 25 ? "prices fall behind." : "prices keep up."}` : `, ${-grew} % less than a month before.`}`}
      rows={[
        ["Month", "Made", "Spent", "There at its end"],
        ...months.map((m) => [m.month, count(m.made), count(m.spent), count(m.there)]),
      ]}
    >
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`${name} in viewers’ hands by month`}>
        {y.ticks(3).map((t) => (
          <g key={t}>
            <Mark color="line">
              <line x1="46" x2={width} y1={y(t)} y2={y(t)} stroke="currentColor" />
            </Mark>
            <text x="0" y={y(t) + 5}>
              {short(t)}
            </text>
          </g>
        ))}
        <Mark color="slateText">
          <path
            d={
              area<[number, number]>()
                .x((p) => p[0])
                .y1((p) => p[1])
                .y0(y(0))(of) ?? ""
            }
            fill="currentColor"
            opacity="0.15"
          />
          <path d={line<[number, number]>()(of) ?? ""} fill="none" stroke="currentColor" strokeWidth="3" />
          {of.map(([px, py], i) => (
            <circle key={months[i]?.month} cx={px} cy={py} r="4" fill="currentColor">
              <title>{`${months[i]?.month ?? ""}: ${count(months[i]?.there ?? 0)}`}</title>
            </circle>
          ))}
        </Mark>
        {months.map((m, i) => (
          <text key={m.month} x={x(i)} y={height - 4} textAnchor={i === months.length - 1 ? "end" : "middle"}>
            {monthName(m.month)}
          </text>
        ))}
      </Svg>
    </Card>
  );
}

function Where({ rewards, name }: Readonly<{ rewards: PointsCharts["rewards"]; name: string }>) {
  const list = rewards.slice(0, 8);
  const row = 24;
  const height = list.length * row + 4;
  const x = scaleLinear([0, Math.max(1, ...list.map((r) => r.points))], [0, width - 350]);
  const first = rewards[0];
  return (
    <Card
      title="Where they go"
      says={
        first === undefined
          ? "Nothing was sold yet."
          : `Most went for ${first.name}: ${count(first.points)} ${name} in ${counted(first.count, "sale")}.`
      }
      rows={[["Reward", "Sales", name], ...rewards.map((r) => [r.name, count(r.count), count(r.points)])]}
    >
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`${name} spent by reward`}>
        {list.map((r, i) => (
          <g key={r.id}>
            <text x="0" y={i * row + 17} style={{ fontFamily: "inherit" }}>
              {r.name.length > 24 ? `${r.name.slice(0, 23)}…` : r.name}
            </text>
            <Mark color="ochre.solid">
              <rect x="190" y={i * row + 5} width={x(r.points)} height={row - 8} rx="2" fill="currentColor" />
            </Mark>
            <text x={198 + x(r.points)} y={i * row + 17}>
              {short(r.points)} · {count(r.count)}×
            </text>
          </g>
        ))}
      </Svg>
    </Card>
  );
}

function Holders({ holders, name }: Readonly<{ holders: PointsCharts["holders"]; name: string }>) {
  const height = 200;
  const x = scaleBand<number>(
    holders.map((_, i) => i),
    [0, width],
  ).padding(0.2);
  const y = scaleLinear([0, Math.max(1, ...holders.map((h) => h.viewers))], [height - 26, 22]);
  const viewers = holders.reduce((s, h) => s + h.viewers, 0);
  const points = holders.reduce((s, h) => s + h.points, 0);
  // The richest groups that together are at least a tenth of all.
  let lastAt = holders.length - 1;
  while (lastAt > 1 && holders.slice(lastAt).reduce((s, h) => s + h.viewers, 0) * 10 < viewers) lastAt -= 1;
  const top = holders.slice(lastAt);
  const label = (i: number): string => {
    const most = holders[i]?.most;
    if (i === 0) return "none";
    return most === null || most === undefined ? `over ${short(holders[i - 1]?.most ?? 0)}` : `to ${short(most)}`;
  };
  return (
    <Card
      title="Who holds how much"
      says={`${viewers === 1 ? "1 viewer has" : `${count(viewers)} viewers have`} an account; the ${count(top.reduce((s, h) => s + h.viewers, 0))} with over ${short(holders[lastAt - 1]?.most ?? 0)} hold ${share(
        top.reduce((s, h) => s + h.points, 0),
        points,
      )} % of all ${name}.`}
      rows={[["They hold", "Viewers", name], ...holders.map((h, i) => [label(i), count(h.viewers), count(h.points)])]}
    >
      <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Viewers by how many ${name} they hold`}>
        {holders.map((h, i) => (
          <g key={label(i)}>
            <Mark color="slateText">
              <rect x={x(i)} y={y(h.viewers)} width={x.bandwidth()} height={height - 26 - y(h.viewers)} rx="2" fill="currentColor" />
            </Mark>
            <text x={(x(i) ?? 0) + x.bandwidth() / 2} y={y(h.viewers) - 6} textAnchor="middle">
              {count(h.viewers)}
            </text>
            <text x={(x(i) ?? 0) + x.bandwidth() / 2} y={height - 6} textAnchor="middle">
              {label(i)}
            </text>
          </g>
        ))}
      </Svg>
    </Card>
  );
}
