/** The ways an emote may cross the picture. `pile` is reckoned by the physics worker, which only then is loaded. */
export const motions = ["drift", "pop", "ricochet", "rain", "spout", "swirl", "pile"] as const;

export const mostTrims = 8;
