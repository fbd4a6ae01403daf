// What every file of tests starts from. Files share one page and the modules that are loaded, so
// that each one leaves nothing behind.
import { config, disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterAll, afterEach, vi } from 'vitest'
import './lacking'

// a page that stayed would go on asking while the next test counts
disableAutoUnmount()
enableAutoUnmount(afterEach)
// what Vue warns of is a mistake here, too
config.global.config.warnHandler = (warning) => {
  throw new Error(warning)
}
afterAll(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
