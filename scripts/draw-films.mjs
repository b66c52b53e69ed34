// Draws and synthesises the films of the practice rig's shelf, from nothing: `node scripts/draw-films.mjs`. They are small
// and lie in demo/films; this says how they came to be.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { root } from "./lib/system.mjs";

const out = join(root, "demo/films");
const [width, height, rate] = [640, 360, 15];

const ffmpeg = (args, feed) =>
  new Promise((resolve, reject) => {
    const child = spawn("ffmpeg", ["-hide_banner", "-loglevel", "error", "-y", ...args], { stdio: ["pipe", "inherit", "inherit"] });
    child.on("exit", (code) => (code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}`))));
    void (feed?.(child.stdin) ?? Promise.resolve()).then(() => child.stdin.end());
  });

/** Frames as SVG, drawn one by one. */
async function film(name, seconds, draw, sound, codec) {
  const raw = ["-f", "rawvideo", "-pix_fmt", "rgb24", "-s", `${width}x${height}`, "-r", String(rate), "-i", "pipe:0"];
  const heard = sound === "" ? ["-an"] : ["-f", "lavfi", "-t", String(seconds), "-i", sound, "-map", "0:v", "-map", "1:a", "-shortest"];
  await ffmpeg([...raw, ...heard, "-pix_fmt", "yuv420p", ...codec, join(out, name)], async (to) => {
    for (let i = 0; i < seconds * rate; i += 1) {
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 360" width="${width}" height="${height}">${draw(i / rate)}</svg>`;
      const frame = await sharp(Buffer.from(svg)).removeAlpha().raw().toBuffer();
      if (!to.write(frame)) await new Promise((go) => to.once("drain", go));
    }
  });
}
const webm = ["-c:v", "libvpx-vp9", "-deadline", "good", "-cpu-used", "5", "-crf", "42", "-b:v", "0", "-c:a", "libopus", "-b:a", "40k"];
const mp4 = ["-c:v", "libx264", "-preset", "slow", "-crf", "32", "-c:a", "aac", "-b:a", "48k", "-movflags", "+faststart"];

const sea = (level, swing, t, speed, colour) => {
  const points = Array.from({ length: 33 }, (_, i) => `${i * 20},${level + swing * Math.sin(i * 0.55 + t * speed)}`);
  return `<polygon points="0,360 ${points.join(" ")} 640,360" fill="${colour}"/>`;
};
const sail = (t) => {
  const x = 80 + t * 19;
  const y = 236 + 5 * Math.sin(t * 1.5);
  return `<rect width="640" height="360" fill="#9fb8cc"/><circle cx="530" cy="${70 + t * 2}" r="34" fill="#f3d189"/>${sea(238, 7, t, 1.2, "#3c628f")}
    <g transform="translate(${x},${y}) rotate(${3 * Math.sin(t * 1.5)})"><path d="M-70 0H70L46 32H-46Z" fill="#a8352b"/><path d="M6 -8V-112L60 -8Z" fill="#fbf8f2"/><path d="M-4 -8V-92L-44 -8Z" fill="#e9d3b0"/></g>
    ${sea(284, 9, t, 1.7, "#27476f")}`;
};
const kettle = (t) => {
  const shake = t > 9 ? 2 * Math.sin(t * 40) : 0;
  const puffs = Array.from({ length: 9 }, (_, i) => {
    const age = (t * 0.8 + i / 9) % 1;
    return `<circle cx="${430 + age * 90 + 10 * Math.sin(i * 2 + t)}" cy="${150 - age * 130}" r="${8 + age * 26}" fill="#fbf8f2" opacity="${(1 - age) * Math.min(1, t / 5)}"/>`;
  });
  return `<rect width="640" height="360" fill="#4c4138"/><rect y="290" width="640" height="70" fill="#7a5233"/>${puffs.join("")}
    <g transform="translate(${shake},0)"><ellipse cx="300" cy="230" rx="110" ry="76" fill="#4f7d78"/><path d="M398 206l44 -44 14 12 -40 62Z" fill="#4f7d78"/><path d="M214 168q86 -120 172 0" fill="none" stroke="#2a211c" stroke-width="14"/><circle cx="300" cy="152" r="13" fill="#d8a065"/></g>`;
};
const wheel = (t) => {
  const rise = Math.min(1, t / 14);
  const w = 92 - 26 * rise;
  const h = 60 + 110 * rise;
  const wob = 4 * Math.sin(t * 9) * (1 - rise * 0.6);
  const lines = Array.from(
    { length: 5 },
    (_, i) =>
      `<path d="M${320 - w + 10} ${262 - (h * (i + 1)) / 6}q${w} ${14 + wob} ${2 * w - 20} 0" fill="none" stroke="#8f5d3d" stroke-width="4"/>`,
  );
  return `<rect width="640" height="360" fill="#56493f"/><rect y="276" width="640" height="84" fill="#6f4b33"/><ellipse cx="320" cy="284" rx="210" ry="40" fill="#7f8896"/>
    <ellipse cx="${320 + 150 * Math.cos(t * 7)}" cy="${284 + 24 * Math.sin(t * 7)}" rx="14" ry="6" fill="#aab2bd"/>
    <path d="M${320 - w} 264q${wob} ${-h * 0.6} 18 ${-h}h${2 * w - 36}q${18 - wob} ${h * 0.4} 18 ${h}Z" fill="#bd8762"/>${lines.join("")}<ellipse cx="${320 + wob}" cy="${264 - h}" rx="${w - 18}" ry="14" fill="#7d5037"/>`;
};
const tide = (t) =>
  `<rect width="640" height="360" fill="#c3b08a"/>${sea(150 + 40 * Math.sin(t * 0.7), 12, t, 1, "#7fa3a0")}${sea(170 + 40 * Math.sin(t * 0.7), 12, t + 1, 1, "#5c8583")}<circle cx="${160 + 12 * t}" cy="320" r="10" fill="#8c6b4a"/>`;

mkdirSync(out, { recursive: true });
await film("sail.webm", 24, sail, "anoisesrc=color=brown:amplitude=0.25:r=24000,lowpass=f=500,tremolo=f=0.25:d=0.7", webm);
await film("kettle.mp4", 15, kettle, "aevalsrc='0.25*sin(2*PI*(900+60*t)*t)*min(1,t/10)':s=24000", mp4);
await film("throwing.webm", 20, wheel, "aevalsrc='0.2*sin(2*PI*98*t)*(0.8+0.2*sin(2*PI*3*t))+0.06*sin(2*PI*196*t)':s=24000", webm);
await film("tide.webm", 10, tide, "", webm);
// What a checker must find: it flashes six times a second; it is black; it is half an hour long; it is torn; it is no film.
const plain = ["-pix_fmt", "yuv420p", "-c:v", "libx264", "-preset", "slow"];
const lavfi = (...sources) => sources.flatMap((s) => ["-f", "lavfi", "-i", s]);
await ffmpeg([
  ...lavfi("color=white:size=160x90:rate=30:duration=6"),
  "-vf",
  "geq=lum='if(mod(floor(T*12),2),235,16)':cb=128:cr=128",
  ...plain,
  join(out, "lightning.mp4"),
]);
await ffmpeg([
  ...lavfi("color=black:size=160x90:rate=15:duration=8", "sine=frequency=220:duration=8:sample_rate=16000"),
  ...plain,
  "-c:a",
  "aac",
  "-b:a",
  "24k",
  join(out, "night.mp4"),
]);
await ffmpeg([...lavfi("color=#3c628f:size=64x36:rate=1:duration=1800"), ...plain, join(out, "voyage.mp4")]);
writeFileSync(join(out, "torn.mp4"), readFileSync(join(out, "kettle.mp4")).subarray(0, 900));
writeFileSync(join(out, "page.mp4"), "<!doctype html><title>No film</title><p>Whoever named this page after a film was joking.\n");
