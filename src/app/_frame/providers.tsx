"use client";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { ChakraProvider } from "@chakra-ui/react";
import { useServerInsertedHTML } from "next/navigation";
import { type ReactNode, useState } from "react";
import { system } from "../../ui/theme";
import { Toasts } from "../../ui/toaster";

/** Without a cache whose styles are flushed while the server streams, most loads fail to hydrate. */
function useFlushedCache() {
  const [registry] = useState(() => {
    const cache = createCache({ key: "css" });
    cache.compat = true;
    const insert = cache.insert;
    let inserted: string[] = [];
    cache.insert = (...args) => {
      const serialized = args[1];
      if (cache.inserted[serialized.name] === undefined) inserted.push(serialized.name);
      return insert(...args);
    };
    const flush = (): string[] => {
      const names = inserted;
      inserted = [];
      return names;
    };
    return { cache, flush };
  });
  useServerInsertedHTML(() => {
    const names = registry.flush();
    if (names.length === 0) return null;
    const styles = names
      .map((name) => registry.cache.inserted[name])
      .filter((s) => typeof s === "string")
      .join("");
    return <style data-emotion={`${registry.cache.key} ${names.join(" ")}`} dangerouslySetInnerHTML={{ __html: styles }} />;
  });
  return registry.cache;
}

export function Providers({ children }: { children: ReactNode }) {
  const cache = useFlushedCache();
  return (
    <CacheProvider value={cache}>
      <ChakraProvider value={system}>
        {children}
        <Toasts />
      </ChakraProvider>
    </CacheProvider>
  );
}
