import { refuse } from '@/core/error';

/** Formats of decoded pictures with more than 8 bits a value, in words of two bytes: how many bits. */
export const deep: Partial<Record<string, number>> = { I420P10: 10, I420P12: 12 };

const read = ['I420', 'NV12', 'I420A', ...Object.keys(deep)];

/**
 * The format of a decoded picture, if it can be read: 4:2:0 of 8, 10 or 12 bits.
 * @throws CoreError `media.depth` otherwise
 * @see WebCodecs, VideoPixelFormat; null stands for a format that has no name there
 */
export function checkFormat(format: string | null): string {
  if (format === null || !read.includes(format))
    refuse(
      'media.depth',
      'These pictures are not in 4:2:0, or in a form that only this device knows. Set the camera to 8 bit SDR, or convert the file to H.264.',
    );
  return format;
}
