const MOST_LETTERS = 120_000; // that the server reads

/** A long page's source cut down to its blocks of recipe data, or to what is read of it. */
export function slim(source: string): string {
  if (source.length <= MOST_LETTERS) return source;
  const blocks = source.match(/<script[^>]*application\/ld\+json[^>]*>[\s\S]*?<\/script>/giu) ?? [];
  return (blocks.length ? `<html>${blocks.join("\n")}</html>` : source).slice(0, MOST_LETTERS);
}
