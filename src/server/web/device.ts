import { loginKey } from "../../core/kernel/text";
import { newToken, seal, unseal } from "../secrets";

/**
 * A browser in which an operator signed in keeps a cookie that says so, sealed for this one name. Whoever has it is let try
 * by themselves: others who guess at the name from anywhere never shut them out, and are slowed down themselves.
 */
export const deviceCookie = "izzam_device";
export const deviceDays = 400;

const purpose = (login: string): string => `device ${loginKey(login)}`;
export const freshDevice = (key: Buffer, login: string): string => seal(key, purpose(login), newToken());

/** Which browser it is, if this name signed in there before; null otherwise. */
export function knownDevice(key: Buffer, login: string, cookie: string): string | null {
  if (!/^v1\.[A-Za-z0-9_-]{40,200}$/.test(cookie)) return null;
  try {
    return unseal(key, purpose(login), cookie);
  } catch {
    return null;
  }
}
