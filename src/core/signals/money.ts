import { z } from "zod";
import { ok, refused, type Result } from "../kernel/refusal";
import { currencyDigits } from "./money-words";

export const currencySchema = z.string().regex(/^[A-Z]{3}$/, "A currency is three capitals, like EUR.");

/** `millionths`: how many millionths of the home currency one unit of the other is worth. */
export const moneySettingsSchema = z.object({
  home: currencySchema,
  rates: z.array(z.object({ currency: currencySchema, millionths: z.int().min(1).max(1_000_000_000_000) })).max(60),
});

export type MoneySettings = z.infer<typeof moneySettingsSchema>;

export const moneyDefaults: MoneySettings = { home: "EUR", rates: [] };

/**
 * An amount in minor units of the home currency, rounded down. Refused: a currency without a rate, an
 * amount that leaves the whole numbers a computer can hold.
 */
export function toHome(amountMinor: number, currency: string, money: MoneySettings): Result<number> {
  if (currency === money.home) return ok(amountMinor);
  const rate = money.rates.find((r) => r.currency === currency);
  if (rate === undefined) return refused("money/no-rate", { currency, home: money.home });
  const shift = currencyDigits(money.home) - currencyDigits(currency);
  const up = 10n ** BigInt(Math.max(0, shift));
  const down = 10n ** BigInt(Math.max(0, -shift)) * 1_000_000n;
  const value = (BigInt(amountMinor) * BigInt(rate.millionths) * up) / down;
  return value <= BigInt(Number.MAX_SAFE_INTEGER) ? ok(Number(value)) : refused("money/too-much", { currency });
}

/** Reads "12.34" or "12" into minor units; null when it is no amount of this currency. */
export function minorFrom(text: string, currency: string): number | null {
  const found = /^(\d{1,13})(?:[.,](\d{1,3}))?$/.exec(text.trim());
  if (found === null) return null;
  const digits = currencyDigits(currency);
  const part = found[2] ?? "";
  if (part.length > digits) return null;
  const value = Number(found[1]) * 10 ** digits + Number(part.padEnd(digits, "0") || 0);
  return Number.isSafeInteger(value) ? value : null;
}
