// Films that are kept on this device, in the browser's private storage, each until a day. No other
// page and no server sees them.
import { FilmProblem } from '@/lesson/look/film/film'
import { localDay } from '@/ui/dates'

export interface KeptFilm {
  id: string
  name: string
  /** The last day it is kept, YYYY-MM-DD. */
  until: string
}

const FOLDER = 'films'
const NO_ROOM = 'This device has no room to keep the film. Nothing else was lost.'
const CANNOT = 'This browser cannot keep films. Open the file again when it is needed.'

/** A file's name may be this long, and other letters take nine times their room. */
const LONGEST_NAME = 180
function titleOf({ id, until, name }: KeptFilm): string {
  return `${id}_${until}_${encodeURIComponent(name)}`
}
/** The name, or its ending where it is too long for the folder. */
const fitting = (name: string) =>
  encodeURIComponent(name).length > LONGEST_NAME ? `film.${name.split('.').at(-1) ?? ''}` : name

/** What a file in the folder is called, read back; null: not one of ours. */
export function keptFrom(title: string): KeptFilm | null {
  const [id, until, ...rest] = title.split('_')
  if (!id || !until || !/^\d{4}-\d\d-\d\d$/.test(until)) return null
  return { id, until, name: decodeURIComponent(rest.join('_')) }
}

/** The day so many days after another, YYYY-MM-DD. */
export function dayAfter(days: number, from = new Date()): string {
  return localDay(new Date(from.getFullYear(), from.getMonth(), from.getDate() + days, 12))
}

async function folder(): Promise<FileSystemDirectoryHandle | null> {
  // not there in an old browser, nor over a connection that is not encrypted
  const storage = (navigator as Partial<Navigator>).storage as Partial<StorageManager> | undefined
  const root = await storage?.getDirectory?.().catch(() => undefined)
  return (await root?.getDirectoryHandle(FOLDER, { create: true })) ?? null
}

/** Those whose day is not past; the others are deleted. */
export async function keptFilms(today = dayAfter(0)): Promise<KeptFilm[]> {
  const there = await folder()
  if (there === null) return []
  const found: KeptFilm[] = []
  for await (const title of there.keys()) {
    const film = keptFrom(title)
    if (film === null || film.until < today) await there.removeEntry(title)
    else found.push(film)
  }
  return found
}

export async function keepFilm(id: string, file: File, days: number): Promise<KeptFilm> {
  const there = await folder()
  if (there === null) throw new FilmProblem(CANNOT)
  await forgetFilm(id)
  const film = { id, name: fitting(file.name), until: dayAfter(days) }
  const title = titleOf(film)
  try {
    const handle = await there.getFileHandle(title, { create: true })
    await file.stream().pipeTo(await handle.createWritable())
  } catch {
    await there.removeEntry(title).catch(() => undefined)
    throw new FilmProblem(NO_ROOM)
  }
  return film
}

/** The film itself; null: it is not kept here. */
export async function openKept(id: string): Promise<File | null> {
  const there = await folder()
  const film = (await keptFilms()).find((f) => f.id === id)
  if (there === null || film === undefined) return null
  const file = await (await there.getFileHandle(titleOf(film))).getFile()
  return new File([file], film.name, { type: file.type })
}

export async function forgetFilm(id: string): Promise<void> {
  const there = await folder()
  if (there === null) return
  for (const film of (await keptFilms()).filter((f) => f.id === id)) {
    await there.removeEntry(titleOf(film))
  }
}
