// What is used of jsfeat, which brings no types.
declare module 'jsfeat' {
  interface Matrix {
    data: Uint8Array
    cols: number
    rows: number
  }
  interface Corner {
    x: number
    y: number
    score: number
  }
  interface Pyramid {
    data: Matrix[]
    allocate: (width: number, height: number, type: number) => void
    build: (first: Matrix, isThere: boolean) => void
  }
  const jsfeat: {
    U8C1_t: number
    matrix_t: new (width: number, height: number, type: number) => Matrix
    pyramid_t: new (levels: number) => Pyramid
    keypoint_t: new () => Corner
    imgproc: { gaussian_blur: (from: Matrix, to: Matrix, size: number) => void }
    yape06: { detect: (picture: Matrix, found: Corner[], border: number) => number }
    optical_flow_lk: {
      track: (
        from: Pyramid,
        to: Pyramid,
        places: Float32Array,
        found: Float32Array,
        count: number,
        window: number,
        steps: number,
        isFound: Uint8Array,
        enough: number,
        least: number,
      ) => void
    }
  }
  export default jsfeat
}
