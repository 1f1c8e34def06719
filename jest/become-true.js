/** How long something may take to become true on the page, in milliseconds. */
const PATIENCE = 30_000;

expect.extend({
  /** Asks again and again until the answer is true: the page changes in its own time. */
  async toBecomeTrue(ask) {
    const end = Date.now() + PATIENCE;
    while (Date.now() < end) {
      if (await ask()) return { pass: true, message: () => 'it became true' };
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return { pass: false, message: () => `it did not become true within ${PATIENCE} ms: ${ask}` };
  },
});
