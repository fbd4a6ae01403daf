// Days and times as the reader of the page says them: "24 Nov", with the year when it is another one.
const DAY_MS = 24 * 3600 * 1000

/** The languages a reader has chosen in the browser, best first. */
type Reader = readonly string[]
const reader = (): Reader => navigator.languages

/** A moment, or a day alone, which is a day of this place and not of Greenwich. */
function dateOf(iso: string): Date {
  return new Date(/^\d{4}-\d{2}-\d{2}$/.test(iso) ? `${iso}T12:00` : iso)
}

export function dayWord(iso: string, now = new Date(), by = reader()): string {
  const date = dateOf(iso)
  const year = date.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return date.toLocaleDateString(by, { day: 'numeric', month: 'short', year })
}

/** The same with "Today" and "Yesterday". */
export function recentWord(iso: string, now = new Date(), by = reader()): string {
  const midnight = new Date(now).setHours(0, 0, 0, 0)
  const at = dateOf(iso).getTime()
  if (at >= midnight && at < midnight + DAY_MS) return 'Today'
  if (at >= midnight - DAY_MS && at < midnight) return 'Yesterday'
  return dayWord(iso, now, by)
}

/** The day of a moment as the calendar of this place has it: "2026-12-07". */
export function localDay(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${String(at.getFullYear())}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
}

/** A time of the day: "16:35". */
export function timeWord(at: Date, by = reader()): string {
  return at.toLocaleTimeString(by, { hour: '2-digit', minute: '2-digit' })
}
