"use client";
import { useState } from "react";

/** The code is this page's own: nobody else's is ever shown here, and nobody should type one they were sent. */
export function Prove({
  channel,
  code,
  points,
  onAsk,
}: Readonly<{ channel: string; code: string; points: string; onAsk: (() => void) | null }>) {
  const [copied, setCopied] = useState(false);
  if (code !== "")
    return (
      <div className="prove">
        <p>Type this in the channel’s chat, under your own name:</p>
        <p className="code">
          <b>{code}</b>
          {onAsk !== null && typeof navigator !== "undefined" && navigator.clipboard !== undefined && (
            <button type="button" className="quiet" onClick={() => void navigator.clipboard.writeText(code).then(() => setCopied(true))}>
              {copied ? "Copied" : "Copy"}
            </button>
          )}
        </p>
        <p className="soft">
          It is good once, for ten minutes, and no password is needed. Type only a code that you see on your own page
          {onAsk === null ? "; then load this page again" : ""}.
        </p>
      </div>
    );
  return (
    <form
      className="prove"
      method="post"
      action={`/api/viewer/${channel}/code`}
      onSubmit={(e) => {
        if (onAsk === null) return;
        e.preventDefault();
        onAsk();
      }}
    >
      <p>To see and spend your {points}, show which chat name is yours.</p>
      <button type="submit" className="main">
        That’s me in chat
      </button>
    </form>
  );
}
