import 'server-only';

/** Day and time as the wall clock shows it for one who works in this time zone: what changes are told with. */
export const stampFor =
  (timeZone: string) =>
  (at: Date): string =>
    new Intl.DateTimeFormat('en-GB', {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
      timeZone,
    }).format(at);
