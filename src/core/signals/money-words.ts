/**
 * Money is integer minor units with the digits that ISO 4217 gives its currency. A channel has one home
 * currency; others count by a table of rates the channel keeps, or not at all.
 */
const digitsOther: Readonly<Record<string, number>> = Object.fromEntries([
  ...["BIF", "CLP", "DJF", "GNF", "ISK", "JPY", "KMF", "KRW", "PYG", "RWF", "UGX", "VND", "VUV", "XAF", "XOF", "XPF"].map((c) => [c, 0]),
  ...["BHD", "IQD", "JOD", "KWD", "LYD", "OMR", "TND"].map((c) => [c, 3]),
]);

export const currencyDigits = (currency: string): number => digitsOther[currency] ?? 2;

/** 1234 EUR → "12.34 EUR". Written out here, so that no machine's language changes it. */
export function moneyInWords(amountMinor: number, currency: string): string {
  const digits = currencyDigits(currency);
  const text = String(amountMinor).padStart(digits + 1, "0");
  const units = text.slice(0, text.length - digits).replace(/\B(?=(\d{3})+$)/g, ",");
  return `${units}${digits > 0 ? `.${text.slice(-digits)}` : ""} ${currency}`;
}
