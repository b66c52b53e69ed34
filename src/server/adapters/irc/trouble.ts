import type { Line } from "../../../core/chat/line";
import type { ChatSettings } from "./settings";

/** Izzam is in the room and may not speak there: no fault of the connection, and nothing that is said arrives. */
export const mayNotSpeak = (line: Line, { channel, nick }: ChatSettings): string | null =>
  line.command === "404" || (line.command === "482" && line.params[1]?.toLowerCase() === channel.toLowerCase())
    ? `The server lets ${nick} read ${channel}, but not speak there (a moderated room): nothing Izzam says arrives. Give ${nick} a voice (+v), or let it sign in.`
    : null;

/** The server's error replies that end a try, in plain words; null for all that don't. */
export function troubleInWords(line: Line, { channel, nick }: ChatSettings): string | null {
  const said = line.params[line.params.length - 1] ?? "";
  const quoted = said === "" ? "" : ` The server says: “${said.slice(0, 120)}”`;
  switch (line.command) {
    case "ERROR":
      return `The chat server ended the connection.${quoted}`;
    case "464":
    case "904":
    case "905":
      return `The chat server does not accept the password for ${nick}.`;
    case "432":
      return `The chat server does not allow the name ${nick}.`;
    case "403":
      return `There is no chat channel ${channel} on this server.`;
    case "405":
      return `The server lets ${nick} into no more channels.${quoted}`;
    case "476":
    case "479":
      return `${channel} is no name of a chat channel on this server. Mostly it begins with #.`;
    case "477":
      return `${channel} is for registered names only. Choose a sign-in for ${nick}.`;
    case "471":
      return `${channel} is full.`;
    case "473":
      return `${channel} is by invitation only.`;
    case "474":
      return `${nick} is banned from ${channel}.`;
    case "475":
      return `${channel} needs a key.`;
    case "465":
      return `This computer is banned from the chat server.${quoted}`;
    default:
      return null;
  }
}
