import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { isFileRoute } from './file-routes';

/** Every address of the application with its kind, as its folders say. */
function addresses(folder: string, path = ''): { readonly path: string; readonly kind: 'page' | 'route' }[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (entry.isDirectory()) {
      const part = entry.name.startsWith('(') ? '' : `/${entry.name.replace(/^\[.*\]$/, 'x-1')}`;
      return addresses(join(folder, entry.name), path + part);
    }
    const kind = /^(page|route)\.tsx?$/.exec(entry.name)?.[1];
    return kind === undefined ? [] : [{ path: path === '' ? '/' : path, kind: kind as 'page' | 'route' }];
  });
}

const found = addresses('src/app');

it('every route handler but the sign-in page is known as one that answers with a file or data', () => {
  const routes = found.filter((a) => a.kind === 'route' && a.path !== '/sign-in').map((a) => a.path);
  expect(routes.length).toBeGreaterThan(20);
  expect(routes.filter((path) => !isFileRoute(path))).toEqual([]);
});

it('no page is', () => {
  const pages = found.filter((a) => a.kind === 'page').map((a) => a.path);
  expect(pages.length).toBeGreaterThan(20);
  expect(pages.filter(isFileRoute)).toEqual([]);
});
