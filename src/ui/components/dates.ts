const DAY_MS = 86_400_000;

/** "today", "yesterday", "6 days ago", "3 weeks ago": how long since, in words. */
export function agoWords(at: Date, now: Date): string {
  const days = Math.floor((now.getTime() - at.getTime()) / DAY_MS);
  if (days < 1) return 'today';
  if (days === 1) return 'yesterday';
  if (days < 21) return `${days} days ago`;
  if (days < 70) return `${Math.round(days / 7)} weeks ago`;
  return `${Math.round(days / 30)} months ago`;
}

const stamps = new Map<string, Intl.DateTimeFormat>();

/** To make one takes a hundred times as long as to use it. */
function stampFormat(timeZone: string): Intl.DateTimeFormat {
  const known = stamps.get(timeZone);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZone,
    timeZoneName: 'short',
  });
  stamps.set(timeZone, made);
  return made;
}

/** Date and time as the clock on the wall shows it for one who works in this time zone, with the zone's name. */
export const stampWords = (at: Date, timeZone: string): string => stampFormat(timeZone).format(at);
