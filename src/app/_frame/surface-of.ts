/** Kept when somebody chose; until then each screen has the surface it is made for. */
export const surfaceCookie = "izzam_surface";
/** Night for what is watched in a dim room, Paper for what is written and read. */
export const nightByItself = (path: string): boolean =>
  path.startsWith("/run") || path.startsWith("/rehearse") || path.startsWith("/remote");
