/** Letters stand for outcomes, in their order. */
export const letterOf = (index: number): string => String.fromCharCode(65 + index);
