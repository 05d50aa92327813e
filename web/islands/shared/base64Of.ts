/** A file as base64. @throws Error in words for one that cannot be read */
export async function base64Of(file: File): Promise<string> {
  const address = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error(`${file.name} cannot be read: ${reader.error?.message ?? ''}`));
    reader.readAsDataURL(file);
  });
  return address.slice(address.indexOf(',') + 1);
}
