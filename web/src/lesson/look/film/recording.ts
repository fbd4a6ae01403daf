// Films with a camera of this device: which cameras there are, and a film of so many seconds.
import { FilmProblem } from '@/lesson/look/film/film'

const NO_CAMERA =
  'This page cannot use a camera: the connection is not encrypted, or there is none. Film with the camera of the device and open the file.'
const REFUSED = 'The camera was not allowed. Allow it for this page, or open a film that is there.'
const IN_USE = 'The camera gives no picture: another program may be using it.'
/** Best first: what browsers write and play again. */
const KINDS = [
  'video/mp4;codecs=avc1',
  'video/webm;codecs=vp9',
  'video/webm;codecs=vp8',
  'video/webm',
]
const BITS_A_SECOND = 12_000_000

/** As fast and as sharp as the camera can; the one at the back, where there are two. */
export async function openCamera(id: string | null): Promise<MediaStream> {
  const devices = (navigator as Partial<Navigator>).mediaDevices
  if (devices === undefined || typeof MediaRecorder === 'undefined')
    throw new FilmProblem(NO_CAMERA)
  const which = id === null ? { facingMode: 'environment' } : { deviceId: { exact: id } }
  const fast = { frameRate: { ideal: 240 }, width: { ideal: 1920 }, height: { ideal: 1080 } }
  try {
    return await devices.getUserMedia({ audio: false, video: { ...which, ...fast } })
  } catch (error) {
    const name = error instanceof DOMException ? error.name : ''
    if (name === 'NotFoundError' || name === 'OverconstrainedError')
      throw new FilmProblem(NO_CAMERA)
    throw new FilmProblem(name === 'NotReadableError' ? IN_USE : REFUSED)
  }
}

export async function cameras(): Promise<{ id: string; word: string }[]> {
  const all = await navigator.mediaDevices.enumerateDevices()
  const video = all.filter((d) => d.kind === 'videoinput' && d.deviceId !== '')
  return video.map((d, i) => ({ id: d.deviceId, word: d.label || `Camera ${String(i + 1)}` }))
}

export function closeCamera(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop()
}

/** A film of so many seconds, or until it is stopped; `onPart` tells how much of it is there. */
export function record(
  stream: MediaStream,
  seconds: number,
  onPart: (part: number) => void,
): { film: Promise<File>; stop: () => void } {
  const kind = KINDS.find((k) => MediaRecorder.isTypeSupported(k)) ?? ''
  const recorder = new MediaRecorder(stream, {
    mimeType: kind,
    videoBitsPerSecond: BITS_A_SECOND,
  })
  const parts: Blob[] = []
  const begun = performance.now()
  const clock = setInterval(() => {
    const part = (performance.now() - begun) / 1000 / seconds
    onPart(Math.min(1, part))
    if (part >= 1) stop()
  }, 50)
  function stop(): void {
    clearInterval(clock)
    if (recorder.state !== 'inactive') recorder.stop()
  }
  const film = new Promise<File>((done, fail) => {
    recorder.addEventListener('dataavailable', ({ data }) => parts.push(data))
    recorder.addEventListener('stop', () => {
      const type = recorder.mimeType
      const ending = type.includes('mp4') ? 'mp4' : 'webm'
      const time = new Date().toTimeString().slice(0, 8).replaceAll(':', '.')
      done(new File(parts, `swing ${time}.${ending}`, { type }))
    })
    recorder.addEventListener('error', () => {
      stop()
      fail(new FilmProblem('The camera stopped. Nothing was kept of this film.'))
    })
  })
  recorder.start()
  return { film, stop }
}
