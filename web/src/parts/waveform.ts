/** How loud a recording is, from its own file; nothing leaves the browser. */

/** Larger files are not opened whole: a waveform is not worth a gigabyte of memory. */
export const MAX_BYTES = 400_000_000;
const COLUMNS = 1200;

/**
 * Peaks from 0 to 1, one a column of the tape.
 *
 * Rejects where the browser cannot read the sound; the file may play all the same.
 */
export async function waveform(file: Blob): Promise<number[]> {
  const context = new OfflineAudioContext(1, 1, 8000);
  const sound = await context.decodeAudioData(await file.arrayBuffer());
  const samples = sound.getChannelData(0);
  const width = Math.max(1, Math.floor(samples.length / COLUMNS));
  const columns = Math.min(COLUMNS, samples.length);
  const peaks = Array.from({ length: columns }, (_, c) => {
    let peak = 0;
    const end = Math.min(samples.length, (c + 1) * width);
    for (let i = c * width; i < end; i += 1) peak = Math.max(peak, Math.abs(samples[i] ?? 0));
    return peak;
  });
  const loudest = Math.max(...peaks, 1e-6);
  return peaks.map((p) => p / loudest);
}

/** The peaks as one outline, `height` high, 100 wide. */
export function outline(peaks: number[], height: number): string {
  const x = (i: number) => ((100 * i) / Math.max(1, peaks.length - 1)).toFixed(2);
  const middle = height / 2;
  const top = peaks.map((p, i) => `${x(i)},${(middle - p * middle).toFixed(2)}`);
  const bottom = peaks.map((p, i) => `${x(i)},${(middle + p * middle).toFixed(2)}`).reverse();
  return `M${[...top, ...bottom].join("L")}Z`;
}
