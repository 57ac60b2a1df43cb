import { isBeyondLoopback, ownName, sendsCookiesSecurely } from './environment';

afterEach(() => {
  delete process.env.RED_PLUMB_BOUND;
  delete process.env.RED_PLUMB_URL;
});

it.each([
  ['beyond', 'https://plumb.example', true],
  ['beyond', 'http://plumb.example', false],
  ['beyond', '', false],
  // The machine itself has no certificate: its cookies would never come back.
  ['loopback', 'https://plumb.example', false],
])('bound %s, address %j: cookies over https alone: %s', (bound, url, is) => {
  process.env.RED_PLUMB_BOUND = bound;
  process.env.RED_PLUMB_URL = url;
  expect(sendsCookiesSecurely()).toBe(is);
});

it('a server without settings takes itself to be reachable by anyone', () => {
  expect(isBeyondLoopback()).toBe(true);
});

it('its own name is that of its address, in small letters', () => {
  expect(ownName()).toBeNull();
  process.env.RED_PLUMB_URL = 'https://Plumb.Example:8443/';
  expect(ownName()).toBe('plumb.example');
  process.env.RED_PLUMB_URL = 'nonsense';
  expect(ownName()).toBeNull();
});
