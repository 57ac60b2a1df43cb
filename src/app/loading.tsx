export default function Loading() {
  return (
    <main>
      <title>One moment · Red Plumb</title>
      <p role="status">One moment ...</p>
    </main>
  );
}
