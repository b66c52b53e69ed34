import type { z } from "zod";

/** The first thing wrong with what was sent, as a sentence. Our own messages are sentences already. */
export const firstProblem = (error: z.ZodError): string => {
  const issue = error.issues[0];
  if (issue === undefined) return "Something is missing.";
  if (/^[A-Z].*\.$/.test(issue.message)) return issue.message;
  const where = issue.path.length === 0 ? "What was sent" : `The value of “${issue.path.join(" ")}”`;
  return `${where} is not allowed: ${issue.message.replace(/^./, (c) => c.toLowerCase()).replace(/\.$/, "")}.`;
};
