/** What a page is about: its heading, and its name in the browser's tabs, history and to a screen reader. */
export function PageHeading({ children, className }: { readonly children: string; readonly className?: string }) {
  return (
    <>
      <title>{`${children} · Red Plumb`}</title>
      <h1 className={className}>{children}</h1>
    </>
  );
}
