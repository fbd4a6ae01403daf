// What jsdom lacks, and a server that each test sets; loaded once for all files of a worker.
// The application's client keeps the `fetch` it finds when it is loaded: one that asks the test.
type Fetch = (request: Request) => Promise<Response>

export const server: { answer: Fetch } = {
  answer: () => Promise.reject(new TypeError('no server in this test')),
}
globalThis.fetch = ((request: Request) => server.answer(request)) as typeof fetch

// jsdom draws nothing: a drawing's own coordinates are the page's, and everything lies inside an
// outline unless a test says else.
globalThis.DOMPoint ??= class {
  constructor(
    readonly x: number,
    readonly y: number,
  ) {}
  matrixTransform(): unknown {
    return this
  }
} as unknown as typeof DOMPoint
export const drawn = { isInside: (at: DOMPoint) => !Number.isNaN(at.x) }
if ('SVGElement' in globalThis) {
  Object.assign(SVGElement.prototype, {
    isPointInFill: (at: DOMPoint) => drawn.isInside(at),
    getScreenCTM: () => ({ a: 1, inverse: () => null }),
    setPointerCapture: () => undefined,
  })
}
// A reader in one language, whatever the machine has.
if ('navigator' in globalThis)
  Object.defineProperty(navigator, 'languages', { value: ['en-GB'], configurable: true })
