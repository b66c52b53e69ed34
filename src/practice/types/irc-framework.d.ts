/** The few parts of the package that our tests use; it ships no types of its own. */
declare module "irc-framework" {
  export class Client {
    connect(options: Record<string, unknown>): void;
    join(channel: string): void;
    say(target: string, text: string): void;
    quit(text?: string): void;
    once(event: string, listener: (data: Record<string, unknown>) => void): void;
  }
}
