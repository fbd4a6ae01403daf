// Metres inside, yards or metres on the screen.
import type { DistanceUnit } from '@/ui/settings'

const METRES: Record<DistanceUnit, number> = { m: 1, yd: 0.9144 }

export function fromMetres(metres: number, unit: DistanceUnit): number {
  return metres / METRES[unit]
}

export function toMetres(value: number, unit: DistanceUnit): number {
  return value * METRES[unit]
}

/** A signed number with a real minus, as it is read aloud. */
export function signed(value: number, digits = 0): string {
  const rounded = Number(value.toFixed(digits))
  const text = Math.abs(rounded).toFixed(digits)
  if (rounded === 0) return text
  return rounded > 0 ? `+${text}` : `−${text}`
}

/**
 * A number as people type it: decimal comma or point, real minus or hyphen.
 * null when the field was emptied, undefined when it is not a number.
 */
export function typedNumber(text: string): number | null | undefined {
  const plain = text.trim().replace(',', '.').replace('−', '-')
  if (plain === '') return null
  const value = Number(plain)
  return Number.isFinite(value) ? value : undefined
}

/** Put back what was there, and say beside the field what was typed, what fits and what was kept. */
export function keepOld(
  input: HTMLInputElement,
  old: string,
  fitting = 'a number that fits here',
): void {
  const typed = input.value
  input.value = old
  const kept = old === '' ? 'nothing was changed' : `${old} was kept`
  const clear = () => {
    input.setCustomValidity('')
  }
  // once the key that left the field is done with: the message takes the eye back to it
  setTimeout(() => {
    input.setCustomValidity(`“${typed}” is not ${fitting}; ${kept}.`)
    input.reportValidity()
    input.addEventListener('input', clear, { once: true })
    input.addEventListener('blur', clear, { once: true })
  })
}
