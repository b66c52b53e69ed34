import type { Knex } from "knex";
import { reasons } from "../../../core/points/ledger";
import { toLeanTables } from "./migration-005";
import { type Step } from "./migration-step";
import { first } from "./migration-001";
import { second } from "./migration-002";
import { third } from "./migration-003";
import { fourth } from "./migration-004";

const fifth: Step = { name: "005-lean-rows-and-keys", up: toLeanTables };

/** What is removed can be brought back: it stays, and nothing shows or runs of it. */
const sixth: Step = {
  name: "006-removed-and-brought-back",
  up: async (db) => {
    for (const table of ["games", "overlays"])
      await db.schema.alterTable(table, (t) => {
        t.bigInteger("removed_ms").nullable();
      });
  },
};

/** The log calls what was done by the names that the code and the documents use: a command, a purchase request. */
const seventh: Step = {
  name: "007-commands-and-purchase-requests",
  up: async (db) => {
    await db.raw(
      `update log set kind = 'command',
         body = if(json_exists(body, '$.hand'), json_insert(json_remove(body, '$.hand'), '$.command', json_extract(body, '$.hand')), body)
       where kind = 'hand'`,
    );
    await db.raw("update log set kind = 'purchase-request' where kind = 'wish'");
    for (const [was, is] of [
      ["hand", "command"],
      ["wish", "purchase-request"],
    ] as const)
      await db.raw("update daily_counts set kind = ? where kind = ?", [is, was]);
  },
};

/** Points are put into games, won, taken back and paid back. */
const eighth: Step = {
  name: "008-stakes-and-winnings",
  up: async (db) => {
    const all = reasons.map((r) => `'${r}'`).join(",");
    for (const table of ["transfers", "transfers_to_many"]) await db.raw(`alter table ${table} modify reason enum(${all}) not null`);
  },
};

/** Overlays are dressed. */
const ninth: Step = {
  name: "009-overlays-are-dressed",
  up: async (db) => {
    await db.schema.alterTable("overlays", (t) => {
      t.text("dress").nullable();
    });
  },
};

/** In which shows somebody was. */
const tenth: Step = {
  name: "010-who-was-in-which-show",
  up: async (db) => {
    await db.raw(
      `alter table viewers add column if not exists shows int unsigned not null default 0, add column if not exists first_ms bigint null,
         add column if not exists last_ms bigint null, add column if not exists last_show varchar(40) not null default ''`,
    );
  },
};

/** What platforms tell of people, and their pictures. */
const eleventh: Step = {
  name: "011-faces",
  up: async (db) => {
    await db.raw(
      `create table if not exists faces (channel int unsigned not null, name_key varbinary(330) not null, profile text null, picture mediumblob null,
         at_ms bigint not null, primary key (channel, name_key), key (at_ms)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** Where a channel's studio is found. */
const twelfth: Step = {
  name: "012-studio",
  up: async (db) => {
    await db.raw(
      `create table if not exists studio_connections (channel_id varchar(26) character set ascii collate ascii_bin not null primary key,
         enabled tinyint(1) not null default 1, settings json not null, secret_sealed text null,
         foreign key (channel_id) references channels (id) on delete cascade) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** Moving pictures: large files in parts, and what is yet to be made. */
const thirteenth: Step = {
  name: "013-moving-pictures",
  up: async (db) => {
    await db.raw("alter table props modify kind enum('picture', 'sound', 'video') not null");
    await db.raw("alter table prop_files add column if not exists size int unsigned null");
    await db.raw(
      `create table if not exists file_parts (sha varchar(64) character set ascii collate ascii_bin not null, n smallint unsigned not null,
         bytes mediumblob not null, primary key (sha, n), foreign key (sha) references prop_files (sha) on delete cascade)
         ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
    await db.raw(
      `create table if not exists media_jobs (id varchar(40) character set ascii collate ascii_bin not null primary key,
         channel_id varchar(26) character set ascii collate ascii_bin not null, purpose varchar(10) character set ascii not null,
         about varchar(80) character set ascii collate ascii_bin not null, name varchar(80) not null, request json not null,
         source_sha varchar(64) character set ascii collate ascii_bin null, state varchar(10) character set ascii not null default 'waiting',
         share smallint unsigned not null default 0, tries smallint unsigned not null default 0, owner varchar(40) character set ascii not null default '',
         lease_ms bigint not null default 0, urgent tinyint(1) not null default 0, told tinyint(1) not null default 0,
         why json null, result json null, created_ms bigint not null, ended_ms bigint null,
         key next_one (state, urgent, created_ms), key of_channel (channel_id, ended_ms), key untold (channel_id, told, purpose),
         foreign key (channel_id) references channels (id) on delete cascade) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** Questions asked of the odds lab, each with how far it is and its answer. */
const fourteenth: Step = {
  name: "014-odds-lab",
  up: async (db) => {
    await db.raw(
      `create table if not exists lab_questions (id varchar(40) character set ascii collate ascii_bin not null primary key,
         channel_id varchar(26) character set ascii collate ascii_bin not null, name varchar(120) not null default '', ask json not null,
         state varchar(10) character set ascii not null default 'waiting', done int unsigned not null default 0, stop tinyint(1) not null default 0,
         tries smallint unsigned not null default 0, owner varchar(40) character set ascii not null default '', lease_ms bigint not null default 0,
         result json null, mark varchar(64) character set ascii not null default '', why json null, asked_by varchar(80) not null,
         created_ms bigint not null, asked_ms bigint not null, ended_ms bigint null, removed_ms bigint null,
         key next_one (state, asked_ms), key of_channel (channel_id, created_ms),
         foreign key (channel_id) references channels (id) on delete cascade) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** What people made of shows that are over: their names, their place in a recording, moments kept and dropped. */
const fifteenth: Step = {
  name: "015-shows-reviewed",
  up: async (db) => {
    const tail = "ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci";
    await db.raw(
      `create table if not exists show_reviews (record bigint unsigned not null primary key, name varchar(120) not null default '',
         offset_ms bigint not null default 0) ${tail}`,
    );
    await db.raw(
      `create table if not exists show_moments (record bigint unsigned not null, id varchar(40) character set ascii collate ascii_bin not null,
         at_ms bigint not null, to_ms bigint not null, name varchar(120) not null, why varchar(300) not null,
         state varchar(10) character set ascii not null, decided_by varchar(80) not null, primary key (record, id)) ${tail}`,
    );
  },
};

/** Past chat from outside, to rehearse with. */
const sixteenth: Step = {
  name: "016-chat-from-outside",
  up: async (db) => {
    await db.raw(
      `create table if not exists chat_files (id varchar(40) character set ascii collate ascii_bin not null primary key,
         channel_id varchar(26) character set ascii collate ascii_bin not null, name varchar(120) not null, line_count int unsigned not null,
         people int unsigned not null, ms bigint not null, body mediumblob not null, rates json not null, brought_by varchar(80) not null,
         created_ms bigint not null, removed_ms bigint null, key of_channel (channel_id, created_ms),
         foreign key (channel_id) references channels (id) on delete cascade) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** A past show may have a page to share, by a link of which the hash alone is kept. */
const seventeenth: Step = {
  name: "017-shows-shared",
  up: async (db) => {
    await db.raw(
      "alter table show_reviews add column if not exists share varchar(64) character set ascii collate ascii_bin null, add unique key if not exists by_share (share)",
    );
  },
};

/** Shows of other installations, to be looked at. */
const eighteenth: Step = {
  name: "018-shows-from-outside",
  up: async (db) => {
    await db.raw(
      `create table if not exists outside_shows (id varchar(40) character set ascii collate ascii_bin not null primary key,
         channel_id varchar(26) character set ascii collate ascii_bin not null, name varchar(120) not null, body longtext not null,
         log longblob not null, brought_by varchar(80) not null, created_ms bigint not null, removed_ms bigint null,
         key of_channel (channel_id, created_ms),
         foreign key (channel_id) references channels (id) on delete cascade) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
    );
  },
};

/** Operators have a name of their own for viewers. */
const nineteenth: Step = {
  name: "019-public-names",
  up: async (db) => {
    await db.schema.alterTable("memberships", (t) => {
      t.string("public_name", 40).notNullable().defaultTo("");
    });
  },
};

const steps: readonly Step[] = [
  first,
  second,
  third,
  fourth,
  fifth,
  sixth,
  seventh,
  eighth,
  ninth,
  tenth,
  eleventh,
  twelfth,
  thirteenth,
  fourteenth,
  fifteenth,
  sixteenth,
  seventeenth,
  eighteenth,
  nineteenth,
];

export const migrationSource: Knex.MigrationSource<Step> = {
  getMigrations: async () => [...steps],
  getMigrationName: (step) => step.name,
  getMigration: async (step) => ({ up: step.up, down: async () => undefined }),
};
