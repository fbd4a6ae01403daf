// The application's client keeps the `fetch` it finds when it is loaded: one that asks the test.
type Fetch = (request: Request) => Promise<Response>

export const server: { answer: Fetch } = {
  answer: () => Promise.reject(new TypeError('no server in this test')),
}
globalThis.fetch = ((request: Request) => server.answer(request)) as typeof fetch
