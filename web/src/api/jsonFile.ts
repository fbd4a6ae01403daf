// A file of JSON that the user chose: an object at least; what it must hold the server says.
import { ApiError } from '@/api/client'

export function jsonObject<T>(text: string, message: string, hint: string): T {
  try {
    const raw: unknown = JSON.parse(text)
    if (typeof raw === 'object' && raw !== null && !Array.isArray(raw)) return raw as T
  } catch {
    // said below
  }
  throw new ApiError({ code: 'bad_case', message, hint, where: 'file' }, 422)
}
