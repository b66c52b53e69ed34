import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { request as httpsRequest } from "node:https";
import { createServer } from "node:net";
import { join } from "node:path";
import { expect, test } from "@playwright/test";

/** Izzam behind a real proxy that adds HTTPS, with a certificate made just now. */
const root = process.cwd();
const folder = join(root, ".data-test/proxy");
const running: ChildProcess[] = [];
let https = "";
let plain = "";
let code = "";

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

test.describe.configure({ mode: "serial" });
test.beforeAll(async () => {
  test.setTimeout(150_000);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const [httpsPort, port] = [await freePort(), await freePort()];
  https = `https://localhost:${httpsPort}`;
  execFileSync(
    "openssl",
    [
      "req",
      "-x509",
      "-newkey",
      "rsa:2048",
      "-nodes",
      "-days",
      "2",
      "-subj",
      "/CN=localhost",
      "-keyout",
      join(folder, "key.pem"),
      "-out",
      join(folder, "cert.pem"),
    ],
    { stdio: "ignore" },
  );
  writeFileSync(
    join(folder, "nginx.conf"),
    `daemon off; pid ${folder}/nginx.pid; error_log ${folder}/error.log; worker_processes 1;
     events { worker_connections 256; }
     http {
       access_log off;
       client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxied; fastcgi_temp_path ${folder}/f; uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
       map $http_upgrade $connection_upgrade { default upgrade; '' ''; }
       server {
         listen 127.0.0.1:${httpsPort} ssl;
         ssl_certificate ${folder}/cert.pem; ssl_certificate_key ${folder}/key.pem;
         location / {
           proxy_pass http://127.0.0.1:${port};
           proxy_bind 127.0.0.2;
           proxy_http_version 1.1;
           proxy_set_header Host $host:$server_port;
           proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
           proxy_set_header X-Forwarded-Proto $scheme;
           proxy_set_header Upgrade $http_upgrade;
           proxy_set_header Connection $connection_upgrade;
         }
       }
     }`,
  );
  // Its own address on loopback, so that what comes straight to the server is told apart from what comes by the proxy.
  const izzam = spawn(
    "./start",
    ["--data", join(folder, "data"), "--empty", "--no-practice", "--port", String(port), "--public-url", https, "--trust", "127.0.0.2"],
    {
      cwd: root,
      stdio: ["ignore", "pipe", "pipe"],
    },
  );
  running.push(izzam);
  let output = "";
  for (const stream of [izzam.stdout, izzam.stderr]) stream.on("data", (data) => (output += String(data)));
  await expect.poll(() => output, { timeout: 100_000 }).toContain("Stop with");
  plain = `http://localhost:${port}`;
  code = /Set-up code\s+(\d{6})/.exec(output)?.[1] ?? "";
  running.push(spawn("/usr/sbin/nginx", ["-c", join(folder, "nginx.conf"), "-p", folder], { stdio: "ignore" }));
});
test.afterAll(async () => {
  for (const child of running.reverse()) {
    const ended = new Promise((resolve) => child.on("exit", resolve));
    child.kill("SIGTERM");
    await ended;
  }
});
test.use({ ignoreHTTPSErrors: true });

test("the owner is created, signed in and told live, all by HTTPS; the cookie is for HTTPS only", async ({ page, context, request }) => {
  const first = await request.get(`${https}/set-up`);
  expect(first.headers()["strict-transport-security"]).toBe("max-age=31536000");
  expect((await request.get(`${plain}/set-up`)).headers()["strict-transport-security"]).toBeUndefined();
  await page.goto(https);
  await page.getByLabel("Set-up code").fill(code);
  await page.getByLabel("Channel name").fill("Behind a proxy");
  await page.getByLabel("Your name").fill("keeper");
  await page.getByLabel("Password").fill("a long password");
  await page.getByRole("button", { name: "Create the channel" }).click();
  await page.waitForURL(`${https}/prepare`);
  const cookie = (await context.cookies()).find((c) => c.name === "izzam_session");
  expect(cookie).toMatchObject({ secure: true, httpOnly: true });
  // The page's socket goes by way of the proxy too, and acts reach the engine.
  await page.goto(`${https}/run`);
  await expect(page.getByRole("button", { name: /Izzam needs a look/ })).toHaveCount(0);
  await page.getByRole("button", { name: /^Hush/ }).click();
  await expect(page.getByText("Hushed: every overlay is empty and silent")).toBeVisible();
  await page.getByRole("button", { name: "Release" }).click();
  await expect(page.getByText("Hushed: every overlay is empty and silent")).toHaveCount(0);
});

test("limits go by the real address: what one client wastes another still has, and nobody speaks for somebody else", async ({
  request,
}) => {
  const tryAs = (address: string, to = https, n = 0) =>
    request.post(`${to}/api/sign-in`, {
      headers: { origin: to, "x-forwarded-for": address },
      data: { login: `guess${address}${n}`, password: "wrong" },
    });
  // The proxy appends whom it saw: what a client wrote in front of that is not believed.
  const all = await Promise.all(Array.from({ length: 25 }, (_, i) => tryAs(`203.0.113.${i}`, https, i)));
  expect(all.filter((r) => r.status() === 429).length).toBeGreaterThanOrEqual(4);
  // By the same proxy, from another address: nothing of that one's tries was wasted.
  const elsewhere = await new Promise<number>((resolve, reject) => {
    const body = JSON.stringify({ login: "somebody", password: "wrong" });
    const headers = { origin: https, "content-type": "application/json", "content-length": body.length };
    const asked = httpsRequest(
      `${https}/api/sign-in`,
      { method: "POST", headers, localAddress: "127.0.0.5", family: 4, rejectUnauthorized: false },
      (res) => resolve(res.resume().statusCode ?? 0),
    );
    asked.on("error", reject);
    asked.end(body);
  });
  expect(elsewhere).toBe(422);
  // Straight to the server it is who connects, whatever it claims: the one whose tries are wasted.
  expect((await tryAs("203.0.113.1", plain)).status()).toBe(429);
});

test("a foreign page can do nothing through the proxy, and a malformed address is told so", async ({ request }) => {
  expect((await request.post(`${https}/api/hush`, { headers: { origin: "https://evil.invalid" }, data: { on: true } })).status()).toBe(403);
  expect((await request.get(`${https}/c/%E0%A4%A`)).status()).toBe(400);
  expect((await request.get(`${plain}/%`)).status()).toBe(400);
});
