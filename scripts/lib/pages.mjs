// Viewer pages without a browser, for the run of faults: tied to a chat name, and buying as the page's own code does.
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** `wrong` gathers what may not happen; `prices` tells what each reward costs now. */
export function pagesOf({ base, channel, prices, saySomething, wrong }) {
  /** A viewer page, as a browser has it: a cookie of its own, tied to a chat name by a code. */
  const pageOf = async (viewer) => {
    const head = { "content-type": "application/json", origin: base };
    for (let i = 0; i < 10; i += 1) {
      const asked = await fetch(`${base}/api/viewer/${channel}/code`, { method: "POST", headers: head, body: "{}" });
      const cookie = (asked.headers.get("set-cookie") ?? "").split(";")[0];
      const { value } = await asked.json();
      if (value?.code !== undefined) {
        await saySomething(viewer, value.code);
        for (let j = 0; j < 60; j += 1) {
          const mine = await fetch(`${base}/api/viewer/${channel}/mine`, { headers: { cookie } });
          if (mine.status === 200) return { viewer, head: { ...head, cookie } };
          await wait(50);
        }
      }
      await wait(200);
    }
    throw new Error(`the page of ${viewer} was never tied to them`);
  };
  /** Pressed until a definite answer comes, with one id, as the page's own `send.ts` does; whether it was sold, as far as the page can tell. */
  const buy = async ({ viewer, head }, id, reward) => {
    for (let i = 0; i < 200; i += 1) {
      const [status, said] = await fetch(`${base}/api/viewer/${channel}/buy`, {
        method: "POST",
        headers: head,
        body: JSON.stringify({ id, reward, text: "", price: prices().get(reward) ?? 0 }),
        signal: AbortSignal.timeout(15_000),
      }).then(
        async (r) => [r.status, await r.json()],
        () => [0, null],
      );
      if (status === 200 && said.ok) return "sold";
      // A no after a try that was lost may stand for that try: it was sold then, and the second one came too soon, or was known.
      if ((status === 422 || status === 409) && !said.refusal.code.startsWith("input/")) return i === 0 ? "refused" : "unclear";
      if (status !== 0 && status !== 503 && status !== 429) {
        wrong.push(`${viewer}, who bought ${reward}, was answered with ${status}: ${said?.refusal?.code}`);
        return "refused";
      }
      await wait(200);
    }
    wrong.push(`${viewer} never heard what came of ${reward}`);
    return "refused";
  };
  return { pageOf, buy };
}
