"use client";
import { Box, Stack, Text } from "@chakra-ui/react";
import type { DropKind, DropTier, HowMany } from "../../core/games/brimful/settings";
import { mostAtOnce } from "../../core/games/brimful/limits";
import { kindInWords } from "../../core/games/brimful/words";
import { currencyDigits } from "../../core/signals/money-words";
import type { Sprite } from "../../core/wire/messages";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import { PicturePicker } from "../../ui/picture-picker";
import { Tick } from "../../ui/tick";

export const hasAmount = (kind: DropKind): boolean => kind !== "follow" && kind !== "message";

type TierProps = Readonly<{
  kind: DropKind;
  tier: DropTier;
  home: string;
  usual: number;
  sprites: readonly Sprite[];
  onSet: (part: Partial<DropTier>) => void;
}>;
export function Tier({ kind, tier, home, usual, sprites, onSet }: TierProps) {
  const money = kind === "tip";
  const scale = money ? 10 ** currencyDigits(home) : 1;
  const unit = money ? home : (kindInWords[kind].unit?.[1] ?? "");
  return (
    <Stack gap="3" pt="2" pb="2" pl="1" borderTopWidth="1px" borderColor="line" mt="1" fontSize="15.5px" lineHeight="2.1">
      <Box>
        {kindInWords[kind].one}
        {hasAmount(kind) && (
          <>
            {" of "}
            <Pick
              label="How the amount counts"
              value={tier.at}
              options={[
                { value: "least", words: "at least" },
                { value: "exact", words: "exactly" },
              ]}
              onSet={(at) => onSet({ at: at === "exact" ? "exact" : "least" })}
            />{" "}
            <NumberField
              label="Amount of this tier"
              value={tier.amount}
              min={0}
              max={1_000_000_000}
              scale={scale}
              unit={unit}
              onSet={(amount) => onSet({ amount })}
            />
          </>
        )}{" "}
        drops <Number kind={kind} home={home} what="piece" blank={tier.pieces} onSet={(pieces) => onSet({ pieces })} />, and{" "}
        <Number kind={kind} home={home} what="face" blank={tier.faces} onSet={(faces) => onSet({ faces })} /> of who sent it.
      </Box>
      <Box>
        A piece is{" "}
        <NumberField
          label={`Size in thousandths of the vessel’s height; 0 for the usual ${usual}`}
          value={tier.size}
          min={0}
          max={900}
          unit="‰"
          onSet={(size) => onSet({ size })}
        />{" "}
        of the vessel’s height (0: the usual {usual}), has a mass of{" "}
        <NumberField label="Mass of a piece" value={tier.mass} min={1} max={500} onSet={(mass) => onSet({ mass })} />, bounces{" "}
        <NumberField label="Bounce of a piece" value={tier.bounce} min={0} max={90} unit="%" onSet={(bounce) => onSet({ bounce })} />, and
        is solid as a{" "}
        <Pick
          label="Form of the solid part"
          value={tier.body}
          options={[
            { value: "circle", words: "circle" },
            { value: "box", words: "box" },
            { value: "capsule", words: "capsule" },
          ]}
          onSet={(body) => onSet({ body: body as DropTier["body"], wide: body === "capsule" && tier.wide === 100 ? 50 : tier.wide })}
        />{" "}
        of{" "}
        <NumberField
          label="Share of the picture that is solid"
          value={tier.solid}
          min={10}
          max={100}
          unit="%"
          onSet={(solid) => onSet({ solid })}
        />{" "}
        of its picture
        {tier.body === "circle" ? (
          "."
        ) : (
          <>
            ,{" "}
            <NumberField
              label="How wide it is beside its height"
              value={tier.wide}
              min={25}
              max={400}
              unit="%"
              onSet={(wide) => onSet({ wide })}
            />{" "}
            as wide as high.
          </>
        )}
      </Box>
      <Tick label="The emotes written with it fall, where there are any" value={tier.emotes} onSet={(emotes) => onSet({ emotes })} />
      <Pictures sprites={sprites} chosen={tier.pictures} onSet={(pictures) => onSet({ pictures })} />
    </Stack>
  );
}

function Number({
  kind,
  home,
  what,
  blank,
  onSet,
}: Readonly<{ kind: DropKind; home: string; what: string; blank: HowMany; onSet: (blank: HowMany) => void }>) {
  const money = kind === "tip";
  const scale = money ? 10 ** currencyDigits(home) : 1;
  return (
    <>
      <NumberField label={`How many ${what}s`} value={blank.give} min={0} max={mostAtOnce} onSet={(give) => onSet({ ...blank, give })} />{" "}
      {blank.give === 1 && blank.per === 0 ? what : `${what}s`}
      {hasAmount(kind) && blank.give > 0 && (
        <>
          {" "}
          <Pick
            label={`What the number of ${what}s hangs on`}
            value={blank.per === 0 ? "once" : "per"}
            options={[
              { value: "once", words: "whatever its amount" },
              { value: "per", words: "for every" },
            ]}
            onSet={(how) => onSet({ ...blank, per: how === "once" ? 0 : scale })}
          />
          {blank.per > 0 && (
            <>
              {" "}
              <NumberField
                label={`For how much there are so many ${what}s`}
                value={blank.per}
                min={1}
                max={1_000_000_000}
                scale={scale}
                unit={money ? home : (kindInWords[kind].unit?.[1] ?? "")}
                onSet={(per) => onSet({ ...blank, per })}
              />
              , at most{" "}
              <NumberField
                label={`Most ${what}s of one`}
                value={blank.most}
                min={1}
                max={mostAtOnce}
                onSet={(most) => onSet({ ...blank, most })}
              />
            </>
          )}
        </>
      )}
    </>
  );
}

/** Which pictures fall, in turn: picked by how they look. */
function Pictures({
  sprites,
  chosen,
  onSet,
}: Readonly<{ sprites: readonly Sprite[]; chosen: readonly string[]; onSet: (keys: string[]) => void }>) {
  return (
    <Box lineHeight="1.4">
      <Text mb="1">
        {chosen.length === 0 ? "Glazed beads fall. Pick pictures to let those fall in their place:" : "These fall, in turn:"}
      </Text>
      {sprites.length === 0 ? (
        <Text color="inkSoft">There are no pictures yet. Add some under Emotes or Props.</Text>
      ) : (
        <PicturePicker label="Pictures that fall" sprites={sprites} chosen={chosen} most={12} onSet={onSet} />
      )}
    </Box>
  );
}
