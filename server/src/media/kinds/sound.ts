import { DomainError, type MediaType } from '@nibquill/core'
import { ProgramFailed, runProgram } from '../../platform/runProgram.ts'
import { ONLY_FILES } from '../sniff.ts'

/** ffmpeg's own names of the containers. */
const MUXER: Partial<Record<MediaType, string>> = {
  'audio/webm': 'webm',
  'audio/ogg': 'ogg',
  'audio/mp4': 'ipod',
  'video/webm': 'webm',
  'video/mp4': 'mp4',
  'video/quicktime': 'mov',
}

/**
 * Copies sound and pictures of a recording into a new file and leaves everything else behind:
 * place, device, author, titles, covers, chapters. Nothing is coded anew.
 * @throws DomainError `media/file-unreadable`
 */
export async function copyStreams(file: string, type: MediaType, into: string): Promise<void> {
  await runProgram(
    'ffmpeg',
    [
      ...['-nostdin', '-v', 'error', '-threads', '1', ...ONLY_FILES, '-i', file],
      ...['-map', '0:V:0?', '-map', '0:a:0?', '-c', 'copy', '-map_metadata', '-1'],
      ...['-map_chapters', '-1', '-fflags', '+bitexact', '-flags', '+bitexact'],
      ...['-movflags', '+faststart', '-f', MUXER[type]!, '-y', into],
    ],
    { seconds: 120, memoryMb: 1024 },
  ).catch((error: unknown) => {
    if (error instanceof ProgramFailed) throw new DomainError('media/file-unreadable')
    throw error
  })
}
