/** Asks for some long work and hands on each line of its answer as it comes. @throws with the answer's words where it is refused */
export async function follow(
  address: string,
  asked: object,
  signal: AbortSignal,
  onLine: (line: unknown) => void,
): Promise<void> {
  const answer = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(asked),
    signal,
  });
  if (!answer.ok || !answer.body) throw new Error(await answer.text());
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let held = '';
  for (;;) {
    const { value, done } = await reader.read();
    if (done) break;
    const lines = (held + value).split('\n');
    held = lines.pop() ?? '';
    for (const line of lines) onLine(JSON.parse(line));
  }
}
