/** A time as it is read: today by the clock, else by the day. */
export function timeText(at: string, now: Date = new Date()): string {
  const time = new Date(at);
  if (Number.isNaN(time.getTime())) return at;
  const clock = time.toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return time.toDateString() === now.toDateString()
    ? clock
    : `${time.toLocaleDateString([], { day: "numeric", month: "short", year: "numeric" })}, ${clock}`;
}
