/** Tells errors that come again and again once: a Redis that is away says so at every try. */
export function createOnceLogger(): (error: Error) => void {
  let told = '';
  return ({ message }) => {
    if (message !== told) console.error(message);
    told = message;
  };
}
