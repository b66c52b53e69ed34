"use client";
import { usePathname } from "next/navigation";
import { useEffect } from "react";
import { nightByItself, surfaceCookie } from "./surface-of";

/** Paper or Night, remembered in a cookie so that the server paints the right one at once. */
export function setSurface(night: boolean): void {
  document.documentElement.classList.toggle("dark", night);
  document.cookie = `${surfaceCookie}=${night ? "night" : "paper"}; path=/; max-age=31536000; samesite=lax`;
}
export const isNight = (): boolean => document.documentElement.classList.contains("dark");

/** Until somebody chooses, each phase has its own surface. */
export function useOwnSurface(): void {
  const path = usePathname();
  useEffect(() => {
    if (!document.cookie.includes(`${surfaceCookie}=`)) document.documentElement.classList.toggle("dark", nightByItself(path));
  }, [path]);
}
