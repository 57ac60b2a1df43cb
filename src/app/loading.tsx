export default function Loading() {
  return (
    <main>
      <p role="status">One moment ...</p>
    </main>
  );
}
