"use client";
import { Box, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { emoteIndex } from "../../../../core/chat/emotes";
import { fold } from "../../../../core/kernel/fold";
import { bareContext } from "../../../../core/module/module";
import { explain } from "../../../../core/rules/rules";
import type { Rulebook, When } from "../../../../core/rules/settings";
import { orderInWords, tierInWords, whenWords } from "../../../../core/rules/words";
import { ruleRefusalInWords, unitOf } from "../../../../core/rules/notes";
import { toHome } from "../../../../core/signals/money";
import { moneyInWords } from "../../../../core/signals/money-words";
import type { Signal } from "../../../../core/signals/signal";
import { roles, type Role, roleWords, type Viewer } from "../../../../core/signals/names";
import { seconds } from "../../../../core/words/sentence";
import { allTold, toldOf } from "../../../../core/games/words";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { namesOf, type Available } from "../_effects/available";
import { inputLook } from "../../../../ui/input-look";

const kinds: readonly When[] = [
  "follow",
  "membership",
  "gift",
  "tip",
  "reaction",
  "raid",
  "host",
  "arrival",
  "message",
  "happened",
  "live",
  "ended",
];

/** Runs any signal through all rules, as they stand here, and shows each decision. Touches nothing. */
export function WhatIf({ book, available }: Readonly<{ book: Rulebook; available: Available }>) {
  const [kind, setKind] = useState<When>("tip");
  const [role, setRole] = useState<Role>("viewer");
  const [known, setKnown] = useState(true);
  const [amount, setAmount] = useState(500);
  const [currency, setCurrency] = useState(book.money.home);
  const [text, setText] = useState("");
  const [what, setWhat] = useState(allTold()[0]?.what ?? "");
  const [reaction, setReaction] = useState("sherd");
  const [onAir, setOnAir] = useState(true);
  const [minute, setMinute] = useState(20);
  const unit = unitOf({ when: kind, what });
  const names = namesOf(available);

  const results = useMemo(() => {
    const nowMs = 10_000_000;
    const viewer: Viewer = { id: "mossy_teapot", name: "mossy_teapot", roles: role === "viewer" ? [] : [role] };
    const giver = known ? viewer : null;
    const head = { seq: 1, atMs: nowMs, id: "what-if" };
    const make = (): Signal => {
      switch (kind) {
        case "message":
          return { ...head, kind, viewer, text, marks: [] };
        case "membership":
          return { ...head, kind, viewer, months: amount, text, fromGift: "" };
        case "gift":
          return { ...head, kind, viewer: giver, count: amount, recipients: [] };
        case "tip": {
          const home = toHome(amount, currency, book.money);
          return { ...head, kind, viewer: giver, amountMinor: amount, currency, homeMinor: home.ok ? home.value : null, text };
        }
        case "reaction":
          return { ...head, kind, viewer: giver, reaction, count: amount, value: amount, text };
        case "raid":
        case "host":
          return { ...head, kind, viewer, viewers: amount };
        case "arrival":
          return { ...head, kind, viewer, shows: Math.max(1, amount), beforeMs: amount > 1 ? nowMs - 7 * 86_400_000 : null };
        case "happened":
          return {
            ...head,
            kind,
            gameId: available.games.find((g) => g.kind === toldOf(what)?.game.kind)?.id ?? "",
            what,
            viewer: giver,
            amount,
            text: toldOf(what)?.told.example ?? "",
          };
        case "live":
        case "ended":
          return { ...head, kind, viewer: null };
        default:
          return { ...head, kind: "follow", viewer };
      }
    };
    const at = {
      settings: book,
      durable: { showStartMs: onAir ? nowMs - minute * 60_000 : null, pending: [], timers: {} },
      transient: { fired: {} },
    };
    const ctx = bareContext(emoteIndex(available.emotes.map((s) => ({ id: s.key.replace(/^own:/, ""), word: s.word }))), {
      homeCurrency: book.money.home,
      pictureNamed: (name) => available.pictures.find((s) => fold(s.word) === fold(name))?.key ?? null,
      soundMs: (id) => available.props.find((p) => p.id === id && p.kind === "sound")?.ms ?? 0,
      videoMs: (id) => available.props.find((p) => p.id === id && p.kind === "picture")?.ms ?? 0,
      gameKind: (id) => available.games.find((g) => g.id === id)?.kind ?? "",
      gameName: (id) => available.games.find((g) => g.id === id)?.name ?? id,
    });
    return explain(at, make(), ctx);
  }, [book, available, kind, role, known, amount, currency, text, what, reaction, onAir, minute]);

  return (
    <Box borderWidth="1px" borderColor="line" borderRadius="10px" p="4" data-testid="what-if">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px">
        What would happen if
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        Nothing is touched: this only asks the rules.
      </Text>
      <Flex gap="2" wrap="wrap" align="center" fontSize="15.5px" lineHeight="2">
        <Pick
          label="What happens"
          value={kind}
          options={kinds.map((k) => ({ value: k, words: whenWords[k] }))}
          onSet={(k) => setKind(k as When)}
        />
        {kind === "happened" && (
          <Pick
            label="What comes to pass"
            value={what}
            options={allTold().map((t) => ({ value: t.what, words: t.told.words }))}
            onSet={setWhat}
          />
        )}
        {unit !== null && (
          <NumberField
            label="Amount"
            value={amount}
            min={0}
            max={Number.MAX_SAFE_INTEGER}
            scale={unit === "money" ? 100 : 1}
            unit={unit === "money" || unit === "value" ? "" : unit[1]}
            onSet={setAmount}
          />
        )}
        {kind === "tip" && (
          <Pick
            label="Currency"
            value={currency}
            options={[...new Set([book.money.home, ...book.money.rates.map((r) => r.currency), "SEK"])].map((c) => ({
              value: c,
              words: c,
            }))}
            onSet={setCurrency}
          />
        )}
        {kind === "reaction" && (
          <chakra.input
            {...inputLook}
            width="110px"
            aria-label="Kind of reaction"
            value={reaction}
            onChange={(e) => setReaction(e.currentTarget.value)}
          />
        )}
        {!["live", "ended"].includes(kind) && (
          <Pick
            label="By whom"
            value={known ? role : "unknown"}
            options={[
              ...roles.map((r) => ({
                value: r,
                words: r === "viewer" ? "by a viewer" : `by one of ${roleWords[r]}`.replace("one of the streamer", "the streamer"),
              })),
              ...(["gift", "tip", "reaction"].includes(kind) ? [{ value: "unknown", words: "by somebody unknown" }] : []),
            ]}
            onSet={(r) => {
              setKnown(r !== "unknown");
              setRole(roles.find((x) => x === r) ?? "viewer");
            }}
          />
        )}
        {["message", "tip", "membership", "reaction"].includes(kind) && (
          <chakra.input
            {...inputLook}
            flex="1"
            minW="140px"
            aria-label="Text with it"
            placeholder="text with it"
            value={text}
            maxLength={500}
            onChange={(e) => setText(e.currentTarget.value)}
          />
        )}
        <Pick
          label="Show"
          value={onAir ? "on" : "off"}
          options={[
            { value: "on", words: "during the show" },
            { value: "off", words: "off air" },
          ]}
          onSet={(v) => setOnAir(v === "on")}
        />
        {onAir && <NumberField label="Minute of the show" value={minute} min={0} max={2_880} unit="min in" onSet={setMinute} />}
      </Flex>
      <Stack gap="2" mt="3" role="status" aria-live="polite" data-testid="decisions">
        {results.length === 0 && (
          <Text color="inkSoft">No rule is about this. It would change nothing here; games have their own rules.</Text>
        )}
        {results.map(({ decision, orders, later }) => (
          <Box
            key={decision.rule.id}
            bg="raised"
            borderRadius="8px"
            px="3"
            py="2"
            fontSize="15px"
            data-decision={decision.refusal?.code ?? "fires"}
          >
            <Text fontWeight="700" color={decision.tier === null ? "ink" : "mossText"}>
              {decision.tier === null ? "·" : "✓"} {decision.rule.name || whenWords[decision.rule.when]}
            </Text>
            {decision.refusal !== null ? (
              <Text color="inkSoft">does not answer: {ruleRefusalInWords(decision.refusal, names, decision.rule)}</Text>
            ) : (
              <>
                {decision.tier !== null && unit !== null && (
                  <Text color="inkSoft">
                    {kind === "tip" && decision.amount !== null ? `counts as ${moneyInWords(decision.amount, book.money.home)}; ` : ""}
                    tier: {tierInWords(decision.rule, decision.tier, book.money.home)}
                  </Text>
                )}
                {orders.map((order, i) => (
                  <Text key={i}>→ {orderInWords(order, names)}</Text>
                ))}
                {later.map((p, i) => (
                  <Text key={`l${i}`}>
                    → after {seconds(p.dueMs - 10_000_000)}: {p.orders.map((o) => orderInWords(o, names)).join(", ")}
                  </Text>
                ))}
                {orders.length + later.length === 0 && <Text color="inkSoft">answers, and does nothing</Text>}
              </>
            )}
          </Box>
        ))}
      </Stack>
    </Box>
  );
}
