"use client";
import { chakra } from "@chakra-ui/react";

/** What a chart shows as a table, opened by who wants figures: the first column names, the others count. */
export const AsTable = ({ head, rows }: Readonly<{ head: readonly string[]; rows: readonly (readonly string[])[] }>) => (
  <chakra.details fontSize="14.5px" color="inkSoft">
    <summary>As a table</summary>
    <chakra.table
      width="100%"
      css={{ "& td, & th": { textAlign: "right", py: "2px" }, "& td:first-of-type, & th:first-of-type": { textAlign: "left" } }}
    >
      <thead>
        <tr>
          {head.map((h) => (
            <th key={h} scope="col">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.join("|")}>
            {r.map((c, i) => (
              <td key={`${i}${c}`}>{c}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </chakra.table>
  </chakra.details>
);
