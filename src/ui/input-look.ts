/** How a plain input within a sentence looks. */
export const inputLook = {
  px: "2",
  minH: "34px",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "6px",
  bg: "ground",
  fontSize: "15px",
} as const;
