import { loginKey } from "../../core/kernel/text";
import { newToken, seal, unseal } from "../secrets";

/**
 * A browser that has signed in keeps this cookie, sealed for one login name. It has a limit of its own for wrong passwords, so
 * that other people who guess at the name can't lock it out.
 */
export const deviceCookie = "izzam_device";
export const deviceDays = 400;

const purpose = (login: string): string => `device ${loginKey(login)}`;
export const freshDevice = (key: Buffer, login: string): string => seal(key, purpose(login), newToken());

/** The browser's own id, if this name has signed in there; null otherwise. */
export function knownDevice(key: Buffer, login: string, cookie: string): string | null {
  if (!/^v1\.[A-Za-z0-9_-]{40,200}$/.test(cookie)) return null;
  try {
    return unseal(key, purpose(login), cookie);
  } catch {
    return null;
  }
}
