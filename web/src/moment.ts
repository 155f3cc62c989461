// Made once: the language's rules take milliseconds to look up.
const TIME = new Intl.DateTimeFormat([], { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
const DATE = new Intl.DateTimeFormat([], { dateStyle: 'medium' });

/** A moment in words: the time alone where it was today. */
export function momentWords(at: Date): string {
  const time = TIME.format(at);
  if (at.toDateString() === new Date().toDateString()) return time;
  return `${DATE.format(at)}, ${time}`;
}
