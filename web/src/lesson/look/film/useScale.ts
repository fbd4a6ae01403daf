// What gives the picture its scale and its level: two ends that are touched, or another film's.
import { computed, ref, type Ref, type ShallowRef } from 'vue'
import type { Shape } from '@/api/client'
import type { Marks, Place } from '@/lesson/look/film/marking'

type What = 'scale' | 'ground'

export function useScale(
  marks: ShallowRef<Marks | null>,
  others: Ref<readonly { name: string; marks: Marks }[]>,
) {
  /** The scale or the ground line, while its two ends are being touched. */
  const ends = ref<{ what: What; first: Place | null; zoom: number } | null>(null)
  const scaleBy = ref('known')
  const scaleCm = ref<number | null>(100)
  /** What gives the scale lies on level ground: its ends are the ground's as well. */
  const scaleIsGround = ref(true)

  const asking = computed(() => {
    if (!ends.value) return null
    const thing = ends.value.what === 'ground' ? 'level ground' : 'what gives the scale'
    return ends.value.first ? `Touch the other end of ${thing}.` : `Touch one end of ${thing}.`
  })
  /** An end was touched; the marks with both, once it is the second. */
  function touchEnd(place: Place, zoom: number): Marks | null {
    if (!ends.value || !marks.value) return null
    const { what, first, zoom: before } = ends.value
    if (first === null) {
      ends.value = { what, first: place, zoom }
      return null
    }
    ends.value = null
    return { ...marks.value, ...both(what, [first, place], Math.min(zoom, before)) }
  }
  function both(what: What, [start, end]: [Place, Place], zoom: number): Partial<Marks> {
    const ground = { ground: [start, end] as [Place, Place], ground_zoom: zoom }
    if (what === 'ground') return ground
    const by = scaleBy.value
    const cm = by === 'ball' || by === 'shoe' ? null : scaleCm.value
    const scale: Shape['ScaleSeen'] = { by, start, end, cm, zoom }
    return by === 'known' && scaleIsGround.value ? { scale, ...ground } : { scale }
  }
  /** A film of this lesson from the same side and as large, whose scale is touched already. */
  const alike = computed(() => {
    const mine = marks.value
    return others.value.find(
      ({ marks: m }) =>
        m.scale && mine?.view === m.view && mine.width === m.width && mine.height === m.height,
    )
  })
  /** The camera stood where it did for that one: scale, level and place are the same. */
  function asInAlike(): Marks | null {
    if (!marks.value || !alike.value) return null
    const { scale, ground, ground_zoom, distance_cm, off_line_cm } = alike.value.marks
    return { ...marks.value, scale, ground, ground_zoom, distance_cm, off_line_cm }
  }
  return { ends, scaleBy, scaleCm, scaleIsGround, asking, touchEnd, alike, asInAlike }
}
