let latest = { ms: 0, count: 0 };

/**
 * UUIDv7 (RFC 9562): 48 bits of time, a counter (its method 1, for what is made within one millisecond), then random bits,
 * so that ids sort as they were made.
 */
export function v7(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  const view = new DataView(bytes.buffer);
  const ms = Math.max(Date.now(), latest.ms);
  latest = { ms, count: ms === latest.ms ? latest.count + 1 : 0 };
  const now = latest.ms;
  view.setUint16(0, Math.floor(now / 2 ** 32));
  view.setUint32(2, now % 2 ** 32);
  view.setUint16(6, 0x7000 | (latest.count & 0x0fff));
  view.setUint8(8, (view.getUint8(8) & 0x3f) | 0x80);
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
