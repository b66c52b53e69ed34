import type { z } from "zod";

/** Where something is wrong, as one would say it: the value of “word” of number 6 of “commands”. Places count from 1. */
function whereOf(path: readonly PropertyKey[]): string {
  const steps = [...path].reverse().map((step) => (typeof step === "number" ? `number ${step + 1}` : `“${String(step)}”`));
  return steps.length === 0 ? "What was sent" : `The value of ${steps.join(" of ")}`;
}

/** The first thing wrong with what was sent, as a sentence. Our own messages are sentences already. */
export const firstProblem = (error: z.ZodError): string => {
  const issue = error.issues[0];
  if (issue === undefined) return "Something is missing.";
  if (/^[A-Z].*\.$/.test(issue.message)) return issue.message;
  return `${whereOf(issue.path)} can’t be used: ${issue.message.replace(/^./, (c) => c.toLowerCase()).replace(/\.$/, "")}.`;
};
