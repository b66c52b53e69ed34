export const post = (path: string, body: unknown): Promise<Response> =>
  fetch(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
