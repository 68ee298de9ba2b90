declare module 'heic-decode' {
  interface Picture {
    width: number
    height: number
    decode: () => Promise<{ width: number; height: number; data: Uint8ClampedArray }>
  }
  const decode: {
    (file: { buffer: Uint8Array }): Promise<{ width: number; height: number; data: Uint8ClampedArray }>
    /** @throws TypeError where it is no HEIC. */
    all: (file: { buffer: Uint8Array }) => Promise<Picture[] & { dispose: () => void }>
  }
  export default decode
}
