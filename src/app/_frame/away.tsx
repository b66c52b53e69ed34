"use client";
import { useRouter } from "next/navigation";
import { startTransition, useEffect } from "react";
import "./away.css";

/** How often a page that could not be read tries again by itself. */
const againMs = 4_000;

/**
 * What stands where a page could not be read: most often the database is away for a moment. It tries again by
 * itself, since nobody has a hand free in a show. Without the component library: the viewer page shows it too.
 */
export function Away({ reset, more }: { reset: () => void; more?: string }) {
  const router = useRouter();
  useEffect(() => {
    const again = setInterval(
      () =>
        startTransition(() => {
          router.refresh();
          reset();
        }),
      againMs,
    );
    return () => clearInterval(again);
  }, [router, reset]);
  return (
    <div className="away" role="alert">
      <h1>This page can’t be read at the moment</h1>
      <p>Most likely the database does not answer. {more}This page tries again by itself.</p>
      <button type="button" onClick={() => location.reload()}>
        Try again now
      </button>
    </div>
  );
}
