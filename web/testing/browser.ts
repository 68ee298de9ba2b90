/** What parts of a page ask of a browser and a browser without a window has not. */
export function asABrowser(): void {
  const nothing = (): void => undefined
  Object.assign(window, {
    ResizeObserver: class {
      observe = nothing
      unobserve = nothing
      disconnect = nothing
    },
    EventSource: class {
      addEventListener = nothing
      close = nothing
    },
    matchMedia: () => ({ matches: false, addEventListener: nothing, removeEventListener: nothing }),
    scrollTo: nothing,
  })
  Object.assign(Element.prototype, {
    scrollIntoView: nothing,
    hasPointerCapture: () => false,
    setPointerCapture: nothing,
    releasePointerCapture: nothing,
  })
  Object.assign(HTMLMediaElement.prototype, { play: () => Promise.resolve(), pause: nothing, load: nothing })
}
