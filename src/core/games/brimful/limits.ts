export const mostAtOnce = 1_000;
