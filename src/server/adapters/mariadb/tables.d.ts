// Written from the migrated database by `IZZAM_WRITE_TABLES=1 npm run unit -- tables.test`; a test compares it.
import type { Knex } from "knex";

declare module "knex/types/tables.js" {
  interface Tables {
    audit: Written<
      {
        id: number;
        channel_id: string;
        operator_id: string;
        action: string;
        detail: unknown;
        at_ms: number;
      },
      "id",
      never
    >;
    channels: Written<
      {
        id: string;
        name: string;
        salt: number;
        revision: number;
        hushed: number;
        created_ms: number;
        num: number;
      },
      "revision" | "hushed" | "num",
      "hushed"
    >;
    chat_connections: Written<
      {
        channel_id: string;
        enabled: number;
        settings: unknown;
        secret_sealed: string | null;
      },
      "enabled" | "secret_sealed",
      "enabled"
    >;
    chat_files: Written<
      {
        id: string;
        channel_id: string;
        name: string;
        line_count: number;
        people: number;
        ms: number;
        body: Buffer;
        rates: unknown;
        brought_by: string;
        created_ms: number;
        removed_ms: number | null;
      },
      "removed_ms",
      never
    >;
    chat_log: Written<
      {
        channel: number;
        at_ms: number;
        seq: number;
        viewer: number;
        roles: number;
        body: string;
      },
      never,
      "roles"
    >;
    daily_counts: Written<
      {
        channel: number;
        day: number;
        kind: string;
        n: number;
      },
      never,
      never
    >;
    daily_points: Written<
      {
        channel: number;
        day: number;
        made: number;
        spent: number;
        from_seq: number;
      },
      never,
      never
    >;
    deliveries: Written<
      {
        channel: number;
        seq: number;
        until_ms: number;
      },
      never,
      never
    >;
    emotes: Written<
      {
        id: string;
        channel_id: string;
        word: string;
        word_key: string;
        source_sha: string;
        pixels_sha: string;
        source_kind: string;
        sheet_sha: string;
        frames: number;
        columns: number;
        frame_width: number;
        frame_height: number;
        frame_ms: number;
        created_ms: number;
        removed_ms: number | null;
      },
      "removed_ms",
      never
    >;
    event_sources: Written<
      {
        channel_id: string;
        secret_sealed: string;
        old_secret_sealed: string | null;
        old_until_ms: number;
        since_ms: number;
      },
      "old_secret_sealed" | "old_until_ms",
      never
    >;
    faces: Written<
      {
        channel: number;
        name_key: Buffer;
        profile: string | null;
        picture: Buffer | null;
        at_ms: number;
      },
      "profile" | "picture",
      never
    >;
    file_parts: Written<
      {
        sha: string;
        n: number;
        bytes: Buffer;
      },
      never,
      never
    >;
    games: Written<
      {
        id: string;
        channel_id: string;
        kind: string;
        name: string;
        draft: unknown;
        draft_revision: number;
        draft_by: string;
        version: number;
        created_ms: number;
        removed_ms: number | null;
      },
      "draft_revision" | "draft_by" | "version" | "removed_ms",
      never
    >;
    game_states: Written<
      {
        game_id: string;
        seq: number;
        durable: unknown;
        version: number;
      },
      "version",
      never
    >;
    game_versions: Written<
      {
        game_id: string;
        version: number;
        settings: unknown;
        by: string;
        note: string;
        at_ms: number;
      },
      "note",
      never
    >;
    installation: Written<
      {
        name: string;
        value: string;
      },
      never,
      never
    >;
    invites: Written<
      {
        token_hash: string;
        channel_id: string;
        made_by: string;
        created_ms: number;
        expires_ms: number;
      },
      never,
      never
    >;
    lab_questions: Written<
      {
        id: string;
        channel_id: string;
        name: string;
        ask: unknown;
        state: string;
        done: number;
        stop: number;
        tries: number;
        owner: string;
        lease_ms: number;
        result: unknown;
        mark: string;
        why: unknown;
        asked_by: string;
        created_ms: number;
        asked_ms: number;
        ended_ms: number | null;
        removed_ms: number | null;
      },
      "name" | "state" | "done" | "stop" | "tries" | "owner" | "lease_ms" | "result" | "mark" | "why" | "ended_ms" | "removed_ms",
      "stop"
    >;
    leases: Written<
      {
        channel: number;
        owner: string;
        epoch: number;
        until_ms: number;
        last_seq: number;
      },
      never,
      never
    >;
    log: Written<
      {
        channel: number;
        at_ms: number;
        seq: number;
        viewer: number | null;
        kind: string;
        source: string;
        body: string;
      },
      "viewer",
      never
    >;
    media_jobs: Written<
      {
        id: string;
        channel_id: string;
        purpose: string;
        about: string;
        name: string;
        request: unknown;
        source_sha: string | null;
        state: string;
        share: number;
        tries: number;
        owner: string;
        lease_ms: number;
        urgent: number;
        told: number;
        why: unknown;
        result: unknown;
        created_ms: number;
        ended_ms: number | null;
      },
      "source_sha" | "state" | "share" | "tries" | "owner" | "lease_ms" | "urgent" | "told" | "why" | "result" | "ended_ms",
      "urgent" | "told"
    >;
    memberships: Written<
      {
        operator_id: string;
        channel_id: string;
        role: string;
        public_name: string;
      },
      "public_name",
      never
    >;
    moving_prices: Written<
      {
        channel_id: string;
        reward_id: string;
        thousandths: number;
        at_ms: number;
      },
      never,
      never
    >;
    once: Written<
      {
        channel: number;
        id: Buffer;
        seq: number;
        at_ms: number;
      },
      never,
      never
    >;
    open_sales: Written<
      {
        channel: number;
        seq: number;
      },
      never,
      never
    >;
    operators: Written<
      {
        id: string;
        login: string;
        login_key: string;
        password_hash: string;
        demo: number;
        created_ms: number;
      },
      "demo",
      "demo"
    >;
    outside_shows: Written<
      {
        id: string;
        channel_id: string;
        name: string;
        body: string;
        log: Buffer;
        brought_by: string;
        created_ms: number;
        removed_ms: number | null;
      },
      "removed_ms",
      never
    >;
    overlays: Written<
      {
        id: string;
        channel_id: string;
        name: string;
        width: number;
        height: number;
        token_hash: string | null;
        token_sealed: string | null;
        token_since_ms: number | null;
        created_ms: number;
        shows: number;
        sounds: number;
        css: string | null;
        backdrop: string;
        note: string;
        layout_draft: unknown;
        at_once: number;
        removed_ms: number | null;
        dress: string | null;
      },
      | "width"
      | "height"
      | "token_hash"
      | "token_sealed"
      | "token_since_ms"
      | "shows"
      | "sounds"
      | "css"
      | "backdrop"
      | "note"
      | "layout_draft"
      | "at_once"
      | "removed_ms"
      | "dress",
      "shows" | "sounds" | "at_once"
    >;
    own_accounts: Written<
      {
        channel: number;
        account: number;
        balance: number;
      },
      never,
      "account"
    >;
    pairings: Written<
      {
        code_hash: string;
        operator_id: string;
        channel_id: string;
        expires_ms: number;
      },
      never,
      never
    >;
    placements: Written<
      {
        overlay_id: string;
        game_id: string;
        place: unknown;
        order: number;
      },
      "order",
      never
    >;
    props: Written<
      {
        id: string;
        channel_id: string;
        name: string;
        kind: string;
        source_sha: string;
        source_kind: string;
        made_sha: string;
        settings: unknown;
        facts: unknown;
        created_ms: number;
        removed_ms: number | null;
      },
      "removed_ms",
      never
    >;
    prop_files: Written<
      {
        sha: string;
        mime: string;
        bytes: Buffer;
        created_ms: number;
        size: number | null;
      },
      "size",
      never
    >;
    records: Written<
      {
        id: number;
        channel: number;
        game_id: string;
        seq: number;
        kind: string;
        viewer: number | null;
        from_ms: number;
        to_ms: number;
        body: string;
      },
      "id" | "viewer",
      never
    >;
    reward_totals: Written<
      {
        channel: number;
        reward_id: string;
        name: string;
        sold: number;
        handed: number;
        points: number;
      },
      never,
      never
    >;
    sales: Written<
      {
        channel: number;
        seq: number;
        at_ms: number;
        reward_id: string;
        reward_name: string;
        viewer: number;
        price: number;
        held: number;
        text: string;
        state: string;
        show_id: string;
        decided_by: string;
        times: number;
        shown: number;
        code: string;
      },
      "code",
      "held" | "shown"
    >;
    sale_details: Written<
      {
        channel: number;
        seq: number;
        sealed: string;
        gone_ms: number | null;
      },
      "gone_ms",
      never
    >;
    sessions: Written<
      {
        token_hash: string;
        operator_id: string;
        channel_id: string;
        expires_ms: number;
        kind: string;
        id: string | null;
        label: string;
        created_ms: number;
      },
      "kind" | "id" | "label" | "created_ms",
      never
    >;
    show_moments: Written<
      {
        record: number;
        id: string;
        at_ms: number;
        to_ms: number;
        name: string;
        why: string;
        state: string;
        decided_by: string;
      },
      never,
      never
    >;
    show_points: Written<
      {
        channel: number;
        show_id: string;
        made: number;
        spent: number;
        from_seq: number;
      },
      never,
      never
    >;
    show_reviews: Written<
      {
        record: number;
        name: string;
        offset_ms: number;
        share: string | null;
      },
      "name" | "offset_ms" | "share",
      never
    >;
    studio_connections: Written<
      {
        channel_id: string;
        enabled: number;
        settings: unknown;
        secret_sealed: string | null;
      },
      "enabled" | "secret_sealed",
      "enabled"
    >;
    transfers: Written<
      {
        channel: number;
        seq: number;
        n: number;
        at_ms: number;
        reason: string;
        account: number;
        against: number;
        amount: number;
        about: string;
        by: string;
      },
      never,
      "against"
    >;
    transfers_to_many: Written<
      {
        channel: number;
        seq: number;
        n: number;
        at_ms: number;
        reason: string;
        amount: number;
        viewers: string;
        many: number;
        about: string;
        by: string;
      },
      never,
      never
    >;
    triggers: Written<
      {
        channel_id: string;
        cue_id: string;
        token_hash: string;
        token_sealed: string;
        since_ms: number;
      },
      never,
      never
    >;
    viewers: Written<
      {
        id: number;
        channel: number;
        ext: string;
        name: string;
        roles: number;
        has_account: number;
        balance: number;
        day: number;
        earned: number;
        earned_ever: number;
        spent_ever: number;
        moved_ms: number | null;
        shows: number;
        first_ms: number | null;
        last_ms: number | null;
        last_show: string;
      },
      | "id"
      | "name"
      | "roles"
      | "has_account"
      | "balance"
      | "day"
      | "earned"
      | "earned_ever"
      | "spent_ever"
      | "moved_ms"
      | "shows"
      | "first_ms"
      | "last_ms"
      | "last_show",
      "roles" | "has_account"
    >;
    viewer_sessions: Written<
      {
        token_hash: string;
        channel_id: string;
        roles: unknown;
        since_ms: number;
        expires_ms: number;
        viewer_key: number;
      },
      "viewer_key",
      never
    >;
  }
}

/** A row as it is read; written without what the database fills in, a flag as yes or no, and by an expression too. */
type Written<Row, Free extends keyof Row, Flags extends keyof Row> = Knex.CompositeTableType<
  Row,
  Omit<Put<Row, Flags>, Free> & Partial<Pick<Put<Row, Flags>, Free>>,
  Partial<Put<Row, Flags>>
>;
type Put<Row, Flags extends keyof Row> = { [K in keyof Row]: Row[K] | Knex.Raw | (K extends Flags ? boolean : never) };
