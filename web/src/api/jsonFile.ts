// A file of JSON that the user chose: of this format at least; what it must hold the server says.
import { ApiError } from '@/api/client'

export function jsonObject<T>(text: string, format: string, message: string, hint: string): T {
  try {
    const raw: unknown = JSON.parse(text)
    const said = typeof raw === 'object' && raw !== null && 'format' in raw ? raw.format : null
    if (said === format) return raw as T
  } catch {
    // said below
  }
  throw new ApiError({ code: 'bad_case', message, hint, where: 'file' }, 422)
}
