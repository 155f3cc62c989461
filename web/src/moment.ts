/** A moment in words: the time alone where it was today. */
export function momentWords(at: Date): string {
  const time = at.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
  if (at.toDateString() === new Date().toDateString()) return time;
  return `${at.toLocaleDateString([], { dateStyle: 'medium' })}, ${time}`;
}
