"use client";
import { Button, Field, Flex, Input } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";

export function NewOverlay() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const make = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = event.currentTarget;
    const data = new FormData(form);
    setBusy(true);
    const done = await call("POST", "/overlays", {
      name: data.get("name"),
      width: Number(data.get("width")),
      height: Number(data.get("height")),
    });
    setBusy(false);
    if (!done.ok) return tellTrouble(done.words);
    form.reset();
    router.refresh();
  };
  return (
    <form onSubmit={(e) => void make(e)}>
      <Flex gap="3" mt="6" align="end" wrap="wrap" borderWidth="1px" borderStyle="dashed" borderColor="line" borderRadius="10px" p="4">
        <Field.Root width="260px" required>
          <Field.Label>Another overlay</Field.Label>
          <Input name="name" placeholder="Upright phone picture" maxLength={80} autoComplete="off" />
        </Field.Root>
        <Field.Root width="110px" required>
          <Field.Label>Width</Field.Label>
          <Input name="width" type="number" defaultValue={1080} min={16} max={7680} />
        </Field.Root>
        <Field.Root width="110px" required>
          <Field.Label>Height</Field.Label>
          <Input name="height" type="number" defaultValue={1920} min={16} max={7680} />
        </Field.Root>
        <Button type="submit" variant="outline" loading={busy}>
          Add overlay
        </Button>
      </Flex>
    </form>
  );
}
