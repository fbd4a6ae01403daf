// What every file of tests starts from. Files share one page and the modules that are loaded, so
// that each one leaves nothing behind.
import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterAll, afterEach, vi } from 'vitest'
import './lacking'

// a page that stayed would go on asking while the next test counts
disableAutoUnmount()
enableAutoUnmount(afterEach)
afterAll(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
