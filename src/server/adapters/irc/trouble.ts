import type { Line } from "../../../core/chat/line";
import type { ChatSettings } from "./settings";

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
