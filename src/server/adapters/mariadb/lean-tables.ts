import type { Knex } from "knex";
import { reasons } from "../../../core/points/ledger";

/** Where points lie that are nobody's: `passed` is what is on its way from one viewer to another. */
export const ownCodes = { issued: 1, spent: 2, held: 3, passed: 4, owed: 5, pool: 6 } as const;

/** The tables that hold what grows, one statement each: integer keys, and only the indexes a query uses. */
const growing: readonly Readonly<[string, string]>[] = [
  [
    "viewers",
    `id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
     channel INT UNSIGNED NOT NULL,
     ext VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
     name VARCHAR(80) NOT NULL DEFAULT '',
     roles TINYINT UNSIGNED NOT NULL DEFAULT 0,
     has_account TINYINT NOT NULL DEFAULT 0,
     balance BIGINT NOT NULL DEFAULT 0,
     day INT NOT NULL DEFAULT 0,
     earned BIGINT NOT NULL DEFAULT 0,
     earned_ever BIGINT NOT NULL DEFAULT 0,
     spent_ever BIGINT NOT NULL DEFAULT 0,
     moved_ms BIGINT NULL,
     UNIQUE KEY by_id (channel, ext),
     CONSTRAINT viewer_not_below_none CHECK (balance >= 0)`,
  ],
  ["own_accounts", `channel INT UNSIGNED NOT NULL, account TINYINT NOT NULL, balance BIGINT NOT NULL, PRIMARY KEY (channel, account)`],
  ["once", `channel INT UNSIGNED NOT NULL, id BINARY(16) NOT NULL, seq BIGINT NOT NULL, at_ms BIGINT NOT NULL, PRIMARY KEY (channel, id)`],
  [
    "transfers",
    `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, n SMALLINT UNSIGNED NOT NULL, at_ms BIGINT NOT NULL,
     reason ENUM(${reasons.map((r) => `'${r}'`).join(",")}) NOT NULL,
     account INT UNSIGNED NOT NULL, against TINYINT UNSIGNED NOT NULL, amount BIGINT NOT NULL,
     about VARCHAR(120) NOT NULL, \`by\` VARCHAR(60) NOT NULL,
     PRIMARY KEY (channel, seq, n), KEY of_account (account)`,
  ],
  [
    "transfers_to_many",
    `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, n SMALLINT UNSIGNED NOT NULL, at_ms BIGINT NOT NULL,
     reason ENUM(${reasons.map((r) => `'${r}'`).join(",")}) NOT NULL,
     amount BIGINT NOT NULL, viewers MEDIUMTEXT CHARACTER SET ascii COLLATE ascii_bin NOT NULL, many INT NOT NULL,
     about VARCHAR(120) NOT NULL, \`by\` VARCHAR(60) NOT NULL,
     PRIMARY KEY (channel, seq, n)`,
  ],
  [
    "sales",
    `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, at_ms BIGINT NOT NULL,
     reward_id VARCHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, reward_name VARCHAR(60) NOT NULL,
     viewer INT UNSIGNED NOT NULL, price BIGINT NOT NULL, held TINYINT NOT NULL, text VARCHAR(300) NOT NULL,
     state ENUM('waiting','done','refunded') NOT NULL,
     show_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
     decided_by VARCHAR(60) NOT NULL, times INT NOT NULL, shown TINYINT NOT NULL,
     code VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
     PRIMARY KEY (channel, seq), KEY of_viewer (viewer), KEY of_reward (channel, reward_id)`,
  ],
  ["open_sales", `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, PRIMARY KEY (channel, seq)`],
  ["deliveries", `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, until_ms BIGINT NOT NULL, PRIMARY KEY (channel, seq)`],
  [
    "sale_details",
    `channel INT UNSIGNED NOT NULL, seq BIGINT NOT NULL, sealed TEXT NOT NULL, gone_ms BIGINT NULL, PRIMARY KEY (channel, seq), KEY (gone_ms)`,
  ],
  [
    "reward_totals",
    `channel INT UNSIGNED NOT NULL, reward_id VARCHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, name VARCHAR(60) NOT NULL,
     sold BIGINT NOT NULL, handed BIGINT NOT NULL, points BIGINT NOT NULL, PRIMARY KEY (channel, reward_id)`,
  ],
  [
    "daily_points",
    `channel INT UNSIGNED NOT NULL, day INT NOT NULL, made BIGINT NOT NULL, spent BIGINT NOT NULL, from_seq BIGINT NOT NULL, PRIMARY KEY (channel, day)`,
  ],
  [
    "show_points",
    `channel INT UNSIGNED NOT NULL, show_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
     made BIGINT NOT NULL, spent BIGINT NOT NULL, from_seq BIGINT NOT NULL, PRIMARY KEY (channel, show_id)`,
  ],
  [
    "daily_counts",
    `channel INT UNSIGNED NOT NULL, day INT NOT NULL, kind VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, n BIGINT NOT NULL, PRIMARY KEY (channel, day, kind)`,
  ],
  [
    "records",
    `id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY, channel INT UNSIGNED NOT NULL,
     game_id VARCHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, seq BIGINT NOT NULL,
     kind VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, viewer INT UNSIGNED NULL,
     from_ms BIGINT NOT NULL, to_ms BIGINT NOT NULL, body MEDIUMTEXT NOT NULL,
     KEY of_game (game_id, kind, to_ms), KEY of_viewer (viewer), KEY of_kind (channel, kind, to_ms)`,
  ],
];

/** What happened, by month: a month that is old enough is dropped whole. */
export const logs: readonly Readonly<[string, string]>[] = [
  [
    "chat_log",
    `channel INT UNSIGNED NOT NULL, at_ms BIGINT NOT NULL, seq BIGINT NOT NULL, viewer INT UNSIGNED NOT NULL,
     roles TINYINT UNSIGNED NOT NULL, body TEXT NOT NULL,
     PRIMARY KEY (channel, at_ms, seq), KEY of_viewer (viewer)`,
  ],
  [
    "log",
    `channel INT UNSIGNED NOT NULL, at_ms BIGINT NOT NULL, seq BIGINT NOT NULL, viewer INT UNSIGNED NULL,
     kind VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, source VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
     body MEDIUMTEXT NOT NULL,
     PRIMARY KEY (channel, at_ms, seq), KEY of_viewer (viewer)`,
  ],
];

export const monthStartMs = (atMs: number, plus = 0): number => {
  const at = new Date(atMs);
  return Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + plus, 1);
};
/** `p202611` holds what happened in November 2026. */
export const partitionOf = (startMs: number): string => {
  const at = new Date(startMs);
  return `p${at.getUTCFullYear()}${String(at.getUTCMonth() + 1).padStart(2, "0")}`;
};

const table = (columns: string): string => `(${columns}) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`;

export async function makeGrowing(db: Knex): Promise<void> {
  for (const [name, columns] of growing) {
    await db.raw(`drop table if exists ${name}`);
    // Keys of viewers begin above the codes of the channel's own accounts: both stand in one column.
    await db.raw(`create table ${name} ${table(columns)}${name === "viewers" ? " AUTO_INCREMENT=100" : ""}`);
  }
}

/** Logs with a partition for every month from the first one needed to two months from now, and one for what comes after. */
export async function makeLogs(db: Knex, fromMs: number, nowMs: number): Promise<void> {
  const parts: string[] = [];
  for (let start = monthStartMs(Math.max(fromMs, Date.UTC(2020, 0, 1))); start <= monthStartMs(nowMs, 2); start = monthStartMs(start, 1))
    parts.push(`PARTITION ${partitionOf(start)} VALUES LESS THAN (${monthStartMs(start, 1)})`);
  for (const [name, columns] of logs) {
    await db.raw(`drop table if exists ${name}`);
    await db.raw(
      `create table ${name} ${table(columns)} PARTITION BY RANGE (at_ms) (${[...parts, "PARTITION later VALUES LESS THAN MAXVALUE"].join(", ")})`,
    );
  }
}
