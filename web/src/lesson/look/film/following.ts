// What stands still in one picture of a film, found again in another one.
import jsfeat from 'jsfeat'
import type { Place } from '@/lesson/look/film/marking'
import type { Pair } from '@/lesson/look/film/shake'

/** A picture without its colours, row by row. */
export interface Grey {
  width: number
  height: number
  data: Uint8Array
}

const LEVELS = 4
const BORDER = 12
/** One corner is followed out of each field of such a grid: they lie all over the picture. */
const FIELDS = { across: 16, down: 26 } as const
const WINDOW = 21
const STEPS = 30
const ENOUGH = 0.01
const LEAST = 0.0005
/** Pixels: a corner that is followed there and back comes to where it was. */
const BACK = 0.5

type Pyramid = InstanceType<typeof jsfeat.pyramid_t>

export class Following {
  private readonly first: Pyramid
  private readonly places: Float32Array

  constructor(reference: Grey) {
    this.first = pyramidOf(reference)
    this.places = cornersOf(reference)
  }

  /** The corners of the first picture, and where they lie in this one, as far as they are there. */
  pairsIn(picture: Grey): Pair[] {
    const other = pyramidOf(picture)
    const [there, isThere] = tracked(this.first, other, this.places)
    const [back, isBack] = tracked(other, this.first, there)
    const pairs: Pair[] = []
    for (let i = 0; i < this.places.length / 2; i++) {
      const [x, y] = placeOf(this.places, i)
      const [bx, by] = placeOf(back, i)
      if (isThere[i] && isBack[i] && Math.hypot(bx - x, by - y) < BACK)
        pairs.push({ from: [x, y], to: placeOf(there, i) })
    }
    return pairs
  }
}

const placeOf = (all: Float32Array, i: number): Place => [all[2 * i] ?? 0, all[2 * i + 1] ?? 0]

function pyramidOf({ width, height, data }: Grey): Pyramid {
  const pyramid = new jsfeat.pyramid_t(LEVELS)
  pyramid.allocate(width, height, jsfeat.U8C1_t)
  const [first] = pyramid.data
  if (first) {
    first.data.set(data)
    pyramid.build(first, true)
  }
  return pyramid
}

/** The clearest corner of each field, x and y in turn. */
function cornersOf({ width, height, data }: Grey): Float32Array {
  const sharp = new jsfeat.matrix_t(width, height, jsfeat.U8C1_t)
  const soft = new jsfeat.matrix_t(width, height, jsfeat.U8C1_t)
  sharp.data.set(data)
  jsfeat.imgproc.gaussian_blur(sharp, soft, 5)
  const corners = Array.from({ length: width * height }, () => new jsfeat.keypoint_t())
  const count = jsfeat.yape06.detect(soft, corners, BORDER)
  const best = new Map<number, (typeof corners)[number]>()
  for (const corner of corners.slice(0, count)) {
    const across = Math.floor((corner.x * FIELDS.across) / width)
    const field = Math.floor((corner.y * FIELDS.down) / height) * FIELDS.across + across
    if (corner.score > (best.get(field)?.score ?? 0)) best.set(field, corner)
  }
  return Float32Array.from([...best.values()].flatMap(({ x, y }) => [x, y]))
}

function tracked(from: Pyramid, to: Pyramid, places: Float32Array): [Float32Array, Uint8Array] {
  const found = new Float32Array(places.length)
  const isFound = new Uint8Array(places.length / 2)
  const { track } = jsfeat.optical_flow_lk
  track(from, to, places, found, places.length / 2, WINDOW, STEPS, isFound, ENOUGH, LEAST)
  return [found, isFound]
}
