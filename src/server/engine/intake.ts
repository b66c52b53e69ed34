import { createHash } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refusal, type Refusal, refused, type Result } from "../../core/kernel/refusal";
import { cut, parseJson } from "../../core/kernel/text";
import { type CloudEvent, cloudEventSchema, signalFrom } from "../../core/signals/events";
import type { Clock } from "../ports/clock";
import type { EventsRow } from "../ports/engine-store";
import { readBody } from "./body";
import { RecentIds } from "./recent-ids";
import type { Arrival } from "./inbox";
import type { Runner } from "./runner";
import { verify } from "./webhook";

export const mostBody = 2 * 1024 * 1024;
export const mostEvents = 1_000;
const deepest = 24;
const keptRefusals = 100;

export type RefusedEvent = { atMs: number; code: string; why: string; type: string; id: string; count: number };
export type IntakeDeps = Readonly<{
  runners: ReadonlyMap<ChannelId, Runner>;
  /** Whether a channel that does not run may be there all the same; left out where that is never so. */
  absent?: (channel: ChannelId) => boolean;
  clock: Clock;
  /** The secrets a channel's events may be signed with now, unsealed. */
  secrets: (row: EventsRow, nowMs: number) => readonly string[];
}>;
type Answer = Readonly<{ status: number; body: Record<string, unknown> }>;

const statusOf: Readonly<Record<string, number>> = {
  "event/no-channel": 404,
  "event/starting": 503,
  "event/unsigned": 401,
  "event/stale": 401,
  "event/bad-signature": 401,
  "event/too-large": 413,
  "event/too-many": 413,
  "event/not-json": 400,
  "event/too-deep": 400,
  "event/not-cloudevents": 415,
  "store/away": 503,
};

export function eventRefusalInWords({ code, facts }: Refusal): string {
  switch (code) {
    case "event/starting":
      return "Izzam is starting; the sender should try again in a moment";
    case "event/no-channel":
      return "there is no such channel here, or it takes no events yet";
    case "event/unsigned":
      return "it carries no signature (webhook-id, webhook-timestamp and webhook-signature)";
    case "event/stale":
      return `its time is ${Math.abs(Number(facts["offS"]))} s ${Number(facts["offS"]) > 0 ? "old" : "ahead"}; up to 300 s are taken. Check the sender’s clock`;
    case "event/bad-signature":
      return "its signature does not fit: it was signed with another secret, or changed on the way";
    case "event/too-large":
      return "it is larger than 2 MB";
    case "event/too-many":
      return `it holds ${facts["events"]} events; up to ${facts["most"]} are taken at once`;
    case "event/not-json":
      return "its body is not JSON";
    case "event/too-deep":
      return `its JSON is nested deeper than ${deepest} levels`;
    case "event/not-cloudevents":
      return "it is no CloudEvent 1.0, neither structured, batch nor binary";
    case "event/replayed":
      return "it was delivered before; nothing was done again";
    case "event/unknown-type":
    case "event/bad-data":
      return String(facts["why"]);
    case "store/away":
      return "the database does not answer; the sender should try again";
    case "store/unfit":
      return "it could not be stored; the log of the engine says why";
    default:
      return code;
  }
}

/** Depth of brackets outside strings, before anything is built from the text. */
function tooDeep(text: string): boolean {
  let depth = 0;
  let inString = false;
  for (let i = 0; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    if (inString) {
      if (c === 92) i += 1;
      else if (c === 34) inString = false;
    } else if (c === 34) inString = true;
    else if (c === 123 || c === 91) {
      depth += 1;
      if (depth > deepest) return true;
    } else if (c === 125 || c === 93) depth -= 1;
  }
  return false;
}

/** Unique by source and id together, as CloudEvents say; short enough for an index. */
const arrivalId = (event: CloudEvent): string => createHash("sha256").update(`${event.source}\n${event.id}`).digest("base64url");

/**
 * Where platforms deliver what happened: CloudEvents 1.0 over HTTP, signed. An event that is answered with
 * 200 is committed.
 */
export class Intake {
  private readonly refusedOf = new Map<ChannelId, RefusedEvent[]>();
  private readonly deliveries = new RecentIds(20_000);

  constructor(private readonly deps: IntakeDeps) {}

  refused(channel: ChannelId): readonly RefusedEvent[] {
    return this.refusedOf.get(channel) ?? [];
  }

  /** Listed for the operator. The same thing again and again is one line with a count: nobody can flood the list. */
  private note(channel: ChannelId, why: Refusal, event?: Partial<CloudEvent>): void {
    const list = this.refusedOf.get(channel) ?? [];
    this.refusedOf.set(channel, list);
    const words = eventRefusalInWords(why);
    const type = cut(String(event?.type ?? ""), 100);
    const last = list.find((r) => r.code === why.code && r.type === type && r.why === words);
    const atMs = this.deps.clock.now();
    const id = cut(String(event?.id ?? ""), 100);
    if (last !== undefined) {
      Object.assign(last, { atMs, id, count: last.count + 1 });
      list.sort((a, b) => b.atMs - a.atMs);
      return;
    }
    list.unshift({ atMs, code: why.code, why: words, type, id, count: 1 });
    if (list.length > keptRefusals) list.pop();
  }

  async take(channel: ChannelId, req: IncomingMessage, res: ServerResponse): Promise<void> {
    const answer = await this.answer(channel, req);
    res
      .writeHead(answer.status, {
        "content-type": "application/json",
        "x-content-type-options": "nosniff",
        "cache-control": "no-store",
        ...(answer.status === 503 ? { "retry-after": "2" } : {}),
      })
      .end(JSON.stringify(answer.body));
  }

  private no(channel: ChannelId, code: string, facts: Refusal["facts"] = {}, event?: Partial<CloudEvent>): Answer {
    const why = refusal(code, facts);
    if (this.deps.runners.has(channel)) this.note(channel, why, event);
    return { status: statusOf[code] ?? 400, body: { ok: false, code, why: eventRefusalInWords(why) } };
  }

  private async answer(channel: ChannelId, req: IncomingMessage): Promise<Answer> {
    const runner = this.deps.runners.get(channel);
    const row = runner?.row.events ?? null;
    if (runner === undefined || row === null) {
      req.resume();
      // Until it is taken up nobody can say that there is no such channel: a sender would take that for final.
      return this.no(channel, runner === undefined && this.deps.absent?.(channel) === true ? "event/starting" : "event/no-channel");
    }
    const body = await readBody(req, mostBody);
    if (body === null) return this.no(channel, "event/too-large");
    // Senders sign by the wall clock. Ours may run ahead of it, after the computer's was set right.
    const nowMs = this.deps.clock.wall?.() ?? this.deps.clock.now();
    const header = (name: string): string | undefined => {
      const value = req.headers[name];
      return typeof value === "string" ? value : undefined;
    };
    const signed = verify(
      this.deps.secrets(row, nowMs),
      { id: header("webhook-id"), timestamp: header("webhook-timestamp"), signature: header("webhook-signature") },
      body,
      nowMs,
    );
    if (!signed.ok) return this.no(channel, signed.refusal.code, signed.refusal.facts);
    const delivery = `${channel} ${signed.value.id}`;
    if (this.deliveries.has(delivery)) {
      this.note(channel, refusal("event/replayed"), { id: signed.value.id });
      return { status: 200, body: { ok: true, taken: 0, duplicates: 1, refused: [] } };
    }
    const events = eventsOf(body, header);
    if (!events.ok) return this.no(channel, events.refusal.code, events.refusal.facts);
    const arrivals: Arrival[] = [];
    const given: CloudEvent[] = [];
    const no: { id: string; code: string; why: string }[] = [];
    for (const one of events.value) {
      const event = cloudEventSchema.safeParse(one);
      const made = event.success
        ? signalFrom(event.data)
        : {
            problem: {
              code: "event/bad-data" as const,
              why: `${event.error.issues[0]?.path.join(".") ?? ""}: ${event.error.issues[0]?.message ?? ""}`,
            },
          };
      const id = event.success ? event.data.id : cut(String((one as { id?: unknown } | null)?.id ?? ""), 100);
      if ("problem" in made) {
        const why = refusal(made.problem.code, { why: made.problem.why });
        this.note(channel, why, event.success ? event.data : { id });
        no.push({ id, code: why.code, why: made.problem.why });
      } else if (event.success) {
        arrivals.push({ id: arrivalId(event.data), signal: made.signal });
        given.push(event.data);
      }
    }
    // What waits while one commit is under way goes into the next, together.
    const done = arrivals.length === 0 ? ok([]) : await runner.inbox.platform(arrivals);
    if (!done.ok) return this.no(channel, done.refusal.code, done.refusal.facts);
    this.deliveries.add(delivery);
    // One that can't be stored is refused by itself; all others of its delivery are kept.
    for (const [i, one] of done.value.entries()) {
      if (typeof one === "string") continue;
      const event = given[i];
      this.note(channel, one, event);
      no.push({ id: event?.id ?? "", code: one.code, why: eventRefusalInWords(one) });
    }
    const taken = done.value.filter((t) => t === "taken").length;
    const duplicates = done.value.filter((t) => t === "duplicate").length;
    const body_ = { ok: no.length === 0, taken, duplicates, refused: no.slice(0, 100) };
    return { status: taken + duplicates === 0 && no.length > 0 ? 422 : 200, body: body_ };
  }
}

/** Structured, batch or binary mode, told by the content type and the ce- headers. */
function eventsOf(body: Buffer, header: (name: string) => string | undefined): Result<readonly unknown[]> {
  const type = (header("content-type") ?? "").split(";")[0]?.trim().toLowerCase() ?? "";
  const text = body.toString("utf8");
  if (tooDeep(text)) return refused("event/too-deep");
  let parsed: unknown;
  try {
    parsed = text === "" ? undefined : parseJson(text);
  } catch {
    return refused("event/not-json");
  }
  if (type === "application/cloudevents-batch+json") {
    if (!Array.isArray(parsed)) return refused("event/not-cloudevents");
    return parsed.length > mostEvents
      ? refused("event/too-many", { events: parsed.length, most: mostEvents })
      : { ok: true, value: parsed };
  }
  if (type === "application/cloudevents+json") return { ok: true, value: [parsed] };
  if (header("ce-specversion") !== undefined && (type === "application/json" || type === "")) {
    const time = header("ce-time");
    const event = {
      specversion: header("ce-specversion"),
      id: header("ce-id"),
      source: header("ce-source"),
      type: header("ce-type"),
      ...(time === undefined ? {} : { time }),
      data: parsed,
    };
    return { ok: true, value: [event] };
  }
  return refused("event/not-cloudevents");
}
