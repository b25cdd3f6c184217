/** Readings as bytes: 32-bit floats, little end first; NaN stands for silence. */
export function packFloats(values: Float64Array): Uint8Array {
  const bytes = new Uint8Array(values.length * 4);
  const view = new DataView(bytes.buffer);
  values.forEach((value, i) => view.setFloat32(i * 4, value, true));
  return bytes;
}

/** The same back again, to a hundredth: that is finer than any probe, and undoes the rounding to 32 bits. */
export function unpackFloats(bytes: Uint8Array): Float64Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Float64Array.from(
    { length: bytes.byteLength >> 2 },
    (_, i) => Math.round(view.getFloat32(i * 4, true) * 100) / 100,
  );
}
