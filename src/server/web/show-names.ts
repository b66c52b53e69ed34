import { cut } from "../../core/kernel/text";
import type { ReviewedShow } from "../ports/review-store";

export const titleOf = ({ name, fromMs }: Pick<ReviewedShow, "name" | "fromMs">): string =>
  name !== "" ? cut(name, 120) : `Show of ${new Date(fromMs).toISOString().slice(0, 10)}`;

/** The record that an address names; 0, which none has, for what is no number. */
export const recordIn = (given: string | undefined): number => (/^[1-9]\d{0,15}$/.test(given ?? "") ? Number(given) : 0);

/** What a file of a show is called, before what it is. */
export const fileNameOf = (show: ReviewedShow): string =>
  titleOf(show)
    .replace(/[^A-Za-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .toLowerCase() || "show";
