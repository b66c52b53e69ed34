export const mostTickets = 1_000;

/** A prize that was won: followed until it is handed over. */
export const owedStates = ["promised", "claimed", "sent"] as const;
