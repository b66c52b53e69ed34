import { type ShownPart, type Stage, wireVersion } from "../core/wire/messages";
import { scenes } from "../games/registry-scenes";
import { type Alert, isHeard, isSeen } from "../core/alerts/alert";
import { Captions, captionStyle } from "../overlay/captions";
import { AlertsLayer, alertStyle } from "../overlay/alerts-layer";
import { filmMaker } from "../overlay/film";
import { MusicNow } from "../overlay/music";
import { lookedAtFrames } from "../overlay/player-facts";
import { StagePlayer } from "../overlay/player";
import { SoundBoard } from "../overlay/sounds";
import { openLink } from "./link";
import { PageVoice, sayEveryMs } from "./voice";

const host = document.getElementById("stage");
// The token stands behind the #, so it is in no request and no log.
const token = location.hash.slice(1);
// The booth shows the very page that viewers see; it never counts as one and never makes sound.
const [, peek = null, rehearsal = ""] = /^peek:([A-Za-z0-9_-]{1,26})(?:@([A-Za-z0-9_-]{1,26}))?$/.exec(token) ?? [];
/** `?frames=30`: for a computer that has little to spare, or a broadcast that has no more. */
const asked = Number(new URLSearchParams(location.search).get("frames"));
const most = asked >= 1 && asked <= 240 ? asked : peek === null ? undefined : lookedAtFrames;
/** What this page says of itself is said again this often, also where nothing changed. */
const sayAgainMs = 5_000;

const styled = (text: string): HTMLStyleElement => {
  const style = document.createElement("style");
  style.textContent = text;
  document.head.append(style);
  return style;
};

if (host !== null && (peek !== null || /^[A-Za-z0-9_-]{10,64}$/.test(token))) {
  const sounds = new SoundBoard();
  const films = filmMaker(peek === null ? sounds : undefined);
  const alerts = new AlertsLayer(host, films);
  const music = new MusicNow();
  /** The engine's time as it was told last, when that was here, and how fast it runs: a rehearsal's stands, or runs ahead. */
  let told = { nowMs: Date.now(), atMs: Date.now(), pace: 1 };
  const player = new StagePlayer(host, scenes, {
    music: (nowMs) => music.now(nowMs),
    films,
    ...(peek === null
      ? { seen: (game: string, n: number) => link.send({ v: wireVersion, type: "shown", sales: [`seen:${game}:${n}`], part: "whole" }) }
      : {}),
    wallMs: () => told.nowMs + (Date.now() - told.atMs) * told.pace,
    knock: (knocks, hertz, volume) => sounds.knock(knocks, hertz, volume),
    also: alerts.paint,
    ...(most === undefined ? {} : { mostFrames: most }),
  });
  styled(alertStyle);
  styled(captionStyle);
  const captions = new Captions(host);
  const own = styled("");
  let hushed = false;
  let shows = true;
  let stage: Stage | null = null;
  const whole = (value: number): number => Math.max(1, Math.min(16_384, Math.round(value)));
  const size = (): { width: number; height: number } => ({ width: whole(innerWidth), height: whole(innerHeight) });
  const hush = (on: boolean): void => {
    hushed = on;
    player.hush(on);
    if (on) {
      alerts.clear();
      captions.clear();
      music.clear();
      sounds.stopAll();
    } else if (stage !== null) alerts.setStage(stage.sprites, stage.alerts);
  };
  /** What was sold is seen or heard here: now it is delivered. */
  const said = (sale: string | undefined, part: ShownPart): void => {
    if (sale !== undefined && peek === null) link.send({ v: wireVersion, type: "shown", sales: [sale], part });
  };
  /** Who can't hear it reads what is heard, on every page that is set so, whichever makes the sound. */
  const caption = ({ id, sound, speech, ms }: Alert): void => {
    if (speech !== undefined) return captions.say(id, speech.name === "" ? speech.text : `${speech.name}: ${speech.text}`, ms);
    const known = stage?.sounds.find((s) => s.id === sound);
    if (known !== undefined) captions.say(id, `♪ ${known.name}`, known.ms);
  };
  const link = openLink(peek === null ? { token } : { peek, rehearsal }, {
    size,
    onMessage: (message) => {
      switch (message.type) {
        case "snapshot":
        case "stage": {
          stage = message.stage;
          if (message.type === "snapshot" && message.nowMs > 0) told = { nowMs: message.nowMs, atMs: Date.now(), pace: 1 };
          shows = stage.shows;
          own.textContent = stage.css;
          captions.on = stage.dress.captions;
          player.setStage(shows ? stage : { ...stage, games: [] });
          alerts.dress();
          alerts.setStage(stage.sprites, hushed ? [] : stage.alerts);
          if (message.type === "snapshot") hush(message.hushed);
          sounds.setStage(stage.sounds);
          break;
        }
        case "views":
          if (shows) for (const { game, view } of message.views) player.view(game, view);
          break;
        case "effects":
          if (shows) for (const { game, effect } of message.items) player.effect(game, effect);
          break;
        case "alert":
          if (hushed) break;
          if (shows && alerts.play(message.alert)) said(message.alert.sale, isHeard(message.alert) ? "picture" : "whole");
          if (shows) caption(message.alert);
          music.begin(
            message.alert.id,
            stage?.sounds.find((s) => s.id === message.alert.sound),
            performance.now(),
          );
          if (isHeard(message.alert) && peek === null)
            void sounds.play(message.alert).then((heard) => heard && said(message.alert.sale, isSeen(message.alert) ? "sound" : "whole"));
          break;
        case "alert-end":
          alerts.end(message.ids);
          captions.end(message.ids);
          music.end(message.ids);
          sounds.end(message.ids);
          break;
        case "hush":
          hush(message.on);
          break;
        case "voice":
          if (peek === null) voice.told(message.on);
          break;
        case "tone":
          if (peek === null) void sounds.tone().then((came) => link.send({ v: wireVersion, type: "tone", id: message.id, came }));
          break;
        case "beat":
          if (message.nowMs > 0) told = { nowMs: message.nowMs, atMs: Date.now(), pace: message.pace };
          break;
        case "gone":
          player.clear(true);
          player.free();
          alerts.free();
          captions.free();
          sounds.free();
          break;
      }
    },
  });
  const voice = new PageVoice(sounds, () => link.send({ v: wireVersion, type: "voice" }));
  setInterval(() => voice.look(), sayEveryMs);
  let last = "";
  let lastMs = 0;
  const report = (): void => {
    if (peek !== null) return;
    const { framesPerSecond, late, live, drawing, lowered, dimmed } = player.facts();
    const rounded = {
      ...size(),
      hidden: document.hidden,
      framesPerSecond: Math.round(framesPerSecond),
      late: Math.min(late, 100_000),
      live,
      drawing,
      lowered,
      dimmed,
      sound: sounds.state(),
      speaks: sounds.speaks,
    };
    const text = JSON.stringify(rounded);
    const nowMs = performance.now();
    if (text === last && nowMs - lastMs < sayAgainMs) return;
    [last, lastMs] = [text, nowMs];
    link.send({ v: wireVersion, type: "report", ...rounded });
  };
  setInterval(report, 1_000);
  setInterval(() => player.watchFor(alerts.moves), 100);
  addEventListener("resize", report);
  document.addEventListener("visibilitychange", report);
  // For browser tests and the bench: what the page itself measures.
  Object.assign(window, {
    izzamFacts: () => ({
      ...player.facts(),
      alerts: alerts.live,
      captions: captions.on,
      voice: sounds.speaks,
      sounds: sounds.begun,
      knocks: sounds.knocks,
      level: sounds.level,
      lives: player.lives(),
      shown: player.shown(),
    }),
  });
}
