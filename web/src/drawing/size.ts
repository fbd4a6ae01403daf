// The size of a drawing on the page, so that what is written in it stays as large as it should be.
import { onMounted, onUnmounted, ref, type Ref } from 'vue'

export interface Size {
  width: number
  height: number
}

/** In pixels; `first` until it is known. */
export function useSize(drawn: Readonly<Ref<Element | null>>, first: Size): Ref<Size> {
  const size = ref(first)
  const watcher = new ResizeObserver(([box]) => {
    const { width, height } = box?.contentRect ?? { width: 0, height: 0 }
    if (width > 0 && height > 0) size.value = { width, height }
  })
  onMounted(() => {
    if (drawn.value) watcher.observe(drawn.value)
  })
  onUnmounted(() => {
    watcher.disconnect()
  })
  return size
}
