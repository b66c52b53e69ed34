import { createHmac, randomUUID } from "node:crypto";

/**
 * Sends what a platform would: CloudEvents 1.0, structured, signed as Standard Webhooks describes. Written
 * against the published protocol, not against Izzam's code.
 */
export type Sent = Readonly<{ status: number; said: string }>;

export class EventSender {
  constructor(
    public url: string,
    public secret: string,
  ) {}

  /** Sends to this channel's address from now on; the rest of the address stays. */
  pointAt(channel: string): void {
    this.url = this.url.replace(/\/events\/[^/]*$/, `/events/${channel}`);
  }

  async send(type: string, data: unknown, id: string = randomUUID()): Promise<Sent> {
    const event = {
      specversion: "1.0",
      id,
      source: "urn:practice:saltmarsh-kiln",
      type,
      time: new Date().toISOString(),
      datacontenttype: "application/json",
      data,
    };
    return this.deliver(JSON.stringify(event), "application/cloudevents+json");
  }

  async deliver(body: string, contentType: string): Promise<Sent> {
    if (this.url === "" || this.secret === "") return { status: 0, said: "no address or no secret is set" };
    const id = `msg_${randomUUID()}`;
    const timestamp = Math.floor(Date.now() / 1000);
    const key = Buffer.from(this.secret.replace(/^whsec_/, ""), "base64");
    const signature = `v1,${createHmac("sha256", key).update(`${id}.${timestamp}.${body}`).digest("base64")}`;
    try {
      const response = await fetch(this.url, {
        method: "POST",
        headers: { "content-type": contentType, "webhook-id": id, "webhook-timestamp": String(timestamp), "webhook-signature": signature },
        body,
        signal: AbortSignal.timeout(8_000),
      });
      const answer = (await response.json()) as { taken?: number; duplicates?: number; why?: string; refused?: { why: string }[] };
      const why = answer.why ?? answer.refused?.[0]?.why;
      return {
        status: response.status,
        said: why ?? (answer.taken === 1 ? "taken" : answer.duplicates ? "was there already" : "nothing taken"),
      };
    } catch {
      return { status: 0, said: "Izzam does not answer" };
    }
  }
}
