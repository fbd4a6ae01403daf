/** Moves a row sideways until the item that `which` selects stands in its middle; the page stays. */
export function toMiddle(row: HTMLElement | null, which: string): void {
  const item = row?.querySelector(which)
  if (!row || !item) return
  const [around, box] = [row.getBoundingClientRect(), item.getBoundingClientRect()]
  row.scrollLeft += box.left + box.width / 2 - around.left - around.width / 2
}
