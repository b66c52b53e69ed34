import { z } from "zod";
import { cut, wellFormed } from "../../../core/kernel/text";
import type { Refusal } from "../../../core/kernel/refusal";
import { fetchFile } from "../../props/address";
import type { Found, Profiles } from "../../ports/profiles";

/**
 * WebFinger (RFC 7033): asks the platform for `acct:name@host` and reads the links of its JRD by their relation. The picture
 * and the page are relations that webfinger.net registers; the last topic and the own words are properties of schema.org.
 */
export const avatarRel = "http://webfinger.net/rel/avatar";
export const pageRel = "http://webfinger.net/rel/profile-page";
export const topicProperty = "https://schema.org/headline";
export const aboutProperty = "https://schema.org/description";

const mostJson = 64 * 1024;
const mostPicture = 2 * 1024 * 1024;
const timeoutMs = 2_000;

const jrdSchema = z.object({
  links: z
    .array(z.object({ rel: z.string().max(300), href: z.string().max(2_000).optional() }))
    .max(200)
    .default([]),
  properties: z.record(z.string(), z.string().nullable()).default({}),
});
/** Where a platform answers: `https://host`, or the practice rig's own address. */
export type WebFingerAt = Readonly<{ origin: string; practice: boolean }>;

const text = (given: string | null | undefined, most: number): string => cut(wellFormed(given ?? "").trim(), most);
/** It was said that there is none, or it is none that may be fetched; anything else may pass. */
const isGone = ({ code, facts }: Refusal): boolean =>
  code !== "prop/address-failed" || ["it says 404", "it says 410"].includes(String(facts["why"]));
const isWebAddress = (address: string): boolean => {
  try {
    return /^https?:$/.test(new URL(address).protocol);
  } catch {
    return false;
  }
};

export function webFingerProfiles({ origin, practice }: WebFingerAt): Profiles {
  const inside = practice ? [origin] : [];
  const fetching = { inside, timeoutMs };
  return {
    find: async (name, patienceMs = timeoutMs): Promise<Found> => {
      const { host } = new URL(origin);
      const asked = `${origin}/.well-known/webfinger?resource=${encodeURIComponent(`acct:${name}@${host}`)}`;
      const answer = await fetchFile(asked, mostJson, {
        ...fetching,
        timeoutMs: patienceMs,
        accept: "application/jrd+json, application/json",
      });
      if (!answer.ok) return answer.refusal.facts["why"] === "it says 404" ? { is: "none" } : { is: "away" };
      const jrd = jrdSchema.safeParse(parsed(answer.value.bytes));
      if (!jrd.success) return { is: "away" };
      const link = (rel: string): string => jrd.data.links.find((l) => l.rel === rel && isWebAddress(l.href ?? ""))?.href ?? "";
      const of = (property: string): string | null | undefined =>
        Object.hasOwn(jrd.data.properties, property) ? jrd.data.properties[property] : null;
      const avatar = link(avatarRel);
      // Whatever becomes of the picture: the name and the rest are shown.
      const picture = avatar === "" ? null : await fetchFile(avatar, mostPicture, { ...fetching, accept: "image/*" });
      return {
        is: "found",
        profile: {
          name,
          page: link(pageRel),
          topic: text(of(topicProperty), 120),
          about: text(of(aboutProperty), 200),
          picture: picture === null ? null : picture.ok ? picture.value.bytes : isGone(picture.refusal) ? null : "away",
        },
      };
    },
  };
}

function parsed(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString("utf8")) as unknown;
  } catch {
    return null;
  }
}
