// Files a person picks, as the API takes them.

/** The bytes of a file in base64; refuses what the server would refuse for its size. */
export async function base64(file: File): Promise<string> {
  if (file.size > 10 * 1024 * 1024)
    throw new Error(
      `${file.name} has ${Math.round(file.size / 1048576)} MB; at most 10 MB are read. Nothing was changed.`,
    );
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000)
    text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(text);
}
