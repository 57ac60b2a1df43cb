/** Addresses that answer with a file or with data, never with a page of the application. */
const FILES: readonly RegExp[] = [
  /^\/api\//,
  /^\/calibrations\/[^/]+\/(?:(?:files|scans)\/|(?:picture|scan-picture)$)/,
  /^\/jobs\/[^/]+\/(?:(?:art|cuts|files)\/|dry$)/,
  /^\/rolls\/[^/]+\/(?:files\/|stand-in-scan$)/,
  /^\/setups\/[^/]+\/(?:card$|daily\/discs\/|daily\/picture$)/,
  /^\/history\/(?:list$|[^/]+\/certificate$)/,
  /^\/lists\//,
  /^\/shop\/(?:demo$|archive\/(?:file|look|restore)$|archive\/parts\/)/,
  /^\/sign-out$/,
];

/** Whether an address answers with a file or data: a browser may run nothing of it. */
export const isFileRoute = (path: string): boolean => FILES.some((pattern) => pattern.test(path));
