// A field that shows what is kept, and lets go of it while someone types: news that arrive meanwhile
// (a ball from a device, an answer of the server) must not take the typing away.
import type { Directive } from 'vue'

const latest = new WeakMap<HTMLInputElement, string>()

function show(input: HTMLInputElement): void {
  const value = latest.get(input) ?? ''
  if (input.value !== value) input.value = value
}

/** `v-typed="text"` in place of `:value`. */
export const vTyped: Directive<HTMLInputElement, string> = {
  mounted(input, { value }) {
    latest.set(input, value)
    show(input)
    input.addEventListener('blur', () => {
      // after the change it leaves behind was dealt with
      setTimeout(() => {
        if (document.activeElement !== input) show(input)
      })
    })
  },
  updated(input, { value }) {
    latest.set(input, value)
    if (document.activeElement !== input) show(input)
  },
}
