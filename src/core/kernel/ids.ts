/** Branded ids: the same strings at run time, not interchangeable for the compiler. */
export type ChannelId = string & { readonly __brand: "ChannelId" };
export type GameId = string & { readonly __brand: "GameId" };
export type OverlayId = string & { readonly __brand: "OverlayId" };
export type OperatorId = string & { readonly __brand: "OperatorId" };

// A brand exists only for the compiler, so a cast is the one way to give it; ids are checked at the edge.
export const channelId = (text: string): ChannelId => text as ChannelId;
export const gameId = (text: string): GameId => text as GameId;
export const overlayId = (text: string): OverlayId => text as OverlayId;
export const operatorId = (text: string): OperatorId => text as OperatorId;
