"use client";
import { Button, chakra, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Reward } from "../../../../core/rewards/settings";
import { NumberField } from "../../../../ui/number-field";

export type Bulk = (change: (reward: Reward) => Reward) => void;

/** Prices, cooldowns and more for all that are ticked, at once; one undo takes it back. */
export function BulkBar({ many, onBulk, onNone }: Readonly<{ many: number; onBulk: Bulk; onNone: () => void }>) {
  const [price, setPrice] = useState(100);
  const [restMs, setRestMs] = useState(10_000);
  const [category, setCategory] = useState("");
  return (
    <Flex
      bg="blank"
      borderRadius="8px"
      px="3"
      py="2"
      mb="3"
      gap="2"
      wrap="wrap"
      align="center"
      fontSize="15px"
      role="group"
      aria-label="For all chosen"
    >
      <Text fontWeight="700">{many} chosen</Text>
      <Flex gap="1" align="center">
        <NumberField label="Price for all" value={price} min={0} max={1_000_000_000} onSet={setPrice} />
        <Button
          size="xs"
          variant="outline"
          onClick={() =>
            onBulk((r) => ({ ...r, price, moving: r.moving === null ? null : { ...r.moving, ceiling: Math.max(price, r.moving.ceiling) } }))
          }
        >
          Set price
        </Button>
      </Flex>
      <Flex gap="1" align="center">
        <NumberField label="Cooldown for all" value={restMs} min={0} max={604_800_000} scale={1000} unit="s" onSet={setRestMs} />
        <Button size="xs" variant="outline" onClick={() => onBulk((r) => ({ ...r, sharedRestMs: restMs }))}>
          Set cooldown
        </Button>
      </Flex>
      <Flex gap="1" align="center">
        <chakra.input
          aria-label="Category for all"
          placeholder="category"
          maxLength={30}
          width="110px"
          px="2"
          minH="30px"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          bg="ground"
          value={category}
          onChange={(e) => setCategory(e.currentTarget.value)}
        />
        <Button size="xs" variant="outline" onClick={() => onBulk((r) => ({ ...r, category: category.trim() }))}>
          Set category
        </Button>
      </Flex>
      <Button size="xs" variant="outline" onClick={() => onBulk((r) => ({ ...r, on: true }))}>
        On
      </Button>
      <Button size="xs" variant="outline" onClick={() => onBulk((r) => ({ ...r, on: false }))}>
        Off
      </Button>
      <Button size="xs" variant="ghost" onClick={onNone}>
        Choose none
      </Button>
    </Flex>
  );
}
