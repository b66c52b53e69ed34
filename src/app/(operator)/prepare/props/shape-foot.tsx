"use client";
import { Button, Flex, Text } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";

/** What stands under everything that is cut or trimmed: what is wrong with it, making it so, and as it came. */
export function ShapeFoot<S>({
  now,
  before,
  asItCame,
  problem,
  onSet,
  children,
}: Readonly<{
  now: S;
  before: S;
  /** Left out where there is no such button. */
  asItCame?: S;
  problem: string | undefined;
  onSet: (settings: S) => Promise<boolean>;
  children?: ReactNode;
}>) {
  const [busy, setBusy] = useState(false);
  const same = (a: S, b: S): boolean => JSON.stringify(a) === JSON.stringify(b);
  const apply = (settings: S): void => {
    setBusy(true);
    void onSet(settings).finally(() => setBusy(false));
  };
  return (
    <>
      {problem !== undefined && (
        <Text color="brickText" fontSize="15px" role="alert">
          {problem}
        </Text>
      )}
      <Flex gap="2" align="center">
        <Button
          size="sm"
          colorPalette="ochre"
          fontWeight="700"
          disabled={same(now, before) || problem !== undefined}
          loading={busy}
          onClick={() => apply(now)}
        >
          Make it so
        </Button>
        {asItCame !== undefined && !same(before, asItCame) && (
          <Button size="sm" variant="outline" onClick={() => apply(asItCame)}>
            As it came
          </Button>
        )}
        {children}
      </Flex>
    </>
  );
}
