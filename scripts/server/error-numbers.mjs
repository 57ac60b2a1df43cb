import { AsyncLocalStorage } from 'node:async_hooks';

/**
 * Makes every error that comes up while a request is answered carry the number of that request as its `digest`: that is all of an
 * error which the framework hands on to the page, and it makes one up from the error's text only where there is none.
 * @returns a function that runs the answering of one request under its number
 */
export function numberErrors() {
  const requests = new AsyncLocalStorage();
  Object.defineProperty(Error.prototype, 'digest', {
    configurable: true,
    get: () => requests.getStore(),
    // One that is set stays with its error, as if this were not here.
    set(value) {
      Object.defineProperty(this, 'digest', { value, writable: true, configurable: true, enumerable: true });
    },
  });
  return (number, answer) => requests.run(number, answer);
}
