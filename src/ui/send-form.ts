/** What a form came to: the answer that was given, or that none came, or that it was called back. */
export type Sent = Readonly<{ status: number; answer: unknown }> | "no-answer" | "cancelled";

type How = Readonly<{
  method?: "POST" | "PUT";
  /** How much of it has gone, 0 to 1. */
  onShare?: (share: number) => void;
  /** Calls it back. */
  signal?: AbortSignal;
}>;

/** Sends a file as a form, with its progress, which `fetch` can't tell. Never throws. */
export function sendForm(path: string, field: string, file: File, { method = "POST", onShare, signal }: How = {}): Promise<Sent> {
  return new Promise((resolve) => {
    if (signal?.aborted === true) return resolve("cancelled");
    const request = new XMLHttpRequest();
    const stop = (): void => request.abort();
    const done = (sent: Sent): void => {
      signal?.removeEventListener("abort", stop);
      resolve(sent);
    };
    request.open(method, path);
    request.upload.onprogress = (e) => e.lengthComputable && onShare?.(e.loaded / e.total);
    request.onload = () => {
      try {
        done({ status: request.status, answer: JSON.parse(request.responseText) as unknown });
      } catch {
        done("no-answer");
      }
    };
    request.onerror = () => done("no-answer");
    request.onabort = () => done("cancelled");
    signal?.addEventListener("abort", stop);
    const form = new FormData();
    form.set(field, file);
    request.send(form);
  });
}
