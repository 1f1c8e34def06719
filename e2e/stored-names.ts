import type { Page } from 'playwright-core';

/** Names of the files that a page's browser stores in a folder of its private file system, in order. */
export function storedNames(page: Page, folder: string): Promise<string[]> {
  return page.evaluate(async (name) => {
    const names: string[] = [];
    const root = await navigator.storage.getDirectory();
    const entries = await root.getDirectoryHandle(name, { create: true });
    for await (const file of (entries as unknown as { keys(): AsyncIterable<string> }).keys())
      names.push(file);
    return names.sort();
  }, folder);
}
