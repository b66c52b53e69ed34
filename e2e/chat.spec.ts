import { expect } from "@playwright/test";
import { base, chatConnected, control, copyLink, facts, fault, openOverlay, rawChat, say, sayUntilShown, signIn, test } from "./support";

const line = (text: string | Buffer): Buffer =>
  Buffer.concat([Buffer.from("@izzam/name=Ada;account=ada :ada!a@h PRIVMSG #saltmarsh-kiln :"), Buffer.from(text), Buffer.from("\r\n")]);

test.beforeAll(() => control("/demo/reset"));
test.afterEach(() => fault("none"));
test.beforeEach(async ({ page }) => {
  await signIn(page);
  await chatConnected(page);
});

test("malformed, overlong and tricky lines harm nothing; what is whole in them still counts", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "mugUp");
  await expect.poll(async () => (await facts(overlay)).live, { timeout: 15_000 }).toBe(0);
  await rawChat(Buffer.from(":\r\n@@@\r\n::::: ::\r\nPRIVMSG\r\n\0\0\r\n"));
  await rawChat(line("x".repeat(8_000)));
  await rawChat(Buffer.from("y".repeat(60_000)));
  await rawChat(Buffer.from("\r\n"));
  await rawChat(line(Buffer.from([0xc3, 0x28, 0xa0, 0xff, 0x20])));
  await rawChat(line(`👨${"\u200D👩".repeat(500)}`));
  expect((await facts(overlay)).live).toBe(0);
  // Zero-width tricks and direction marks make no other word; 500 emotes are eight.
  await rawChat(line("\u202Emug\u200BUp"));
  await expect.poll(async () => (await facts(overlay)).live).toBe(1);
  await rawChat(line("🔥".repeat(500)));
  await expect.poll(async () => (await facts(overlay)).live).toBe(9);
  await page.goto(`${base}/prepare`);
  await chatConnected(page);
});

test("a message that the server sends twice shows once", async ({ page, context }) => {
  const overlay = await openOverlay(context, await copyLink(page));
  await sayUntilShown(overlay, "tallVase");
  await expect.poll(async () => (await facts(overlay)).live, { timeout: 15_000 }).toBe(0);
  const once = Buffer.from("@msgid=same-1;account=bo :bo!b@h PRIVMSG #saltmarsh-kiln :goldMend\r\n");
  await rawChat(Buffer.concat([once, once, once]));
  await expect.poll(async () => (await facts(overlay)).live).toBe(1);
  await overlay.waitForTimeout(500);
  expect((await facts(overlay)).live).toBe(1);
});

test("a server that drops and refuses is shown in plain words, and come back to", async ({ page }) => {
  await page.goto(`${base}/prepare`);
  await fault("refuse");
  await expect(page.getByTestId("chat-line")).toHaveAttribute("data-state", "waiting");
  await expect(page.getByTestId("chat-line")).toContainText(
    /Chat is not connected\. The (chat server closed the connection|connection to the chat server broke off)\. Izzam keeps trying\./,
  );
  await expect(page.getByRole("button", { name: "Chat needs a look" })).toBeVisible();
  await fault("none");
  await chatConnected(page);
  // A connection that is turned away may end either way.
  await expect(page.getByTestId("chat-line")).toContainText(
    /Last trouble just now: The (chat server closed the connection|connection to the chat server broke off)\./,
  );
});

test("a connection is changed, and what is wrong with it is told", async ({ page }) => {
  await page.goto(`${base}/prepare/connections`);
  const server = page.getByLabel("Server", { exact: true });
  const before = await server.inputValue();
  await server.fill("http://127.0.0.1/");
  await page.getByRole("button", { name: "Save and connect" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "without a scheme" })).toBeVisible();
  const port = await page.getByLabel("Port").inputValue();
  await server.fill(before);
  await page.getByLabel("Port").fill("1");
  await page.getByRole("button", { name: "Save and connect" }).click();
  await expect(page.getByTestId("chat-line")).toContainText("Nothing answers at 127.0.0.1:1. Check address and port");
  await page.getByLabel("Port").fill(port);
  await page.getByRole("button", { name: "Save and connect" }).click();
  await chatConnected(page);
  await say("back again");
  await expect(page.getByTestId("chat-line")).toContainText(/[1-9]\d* messages? in the last minute/);
});
