/** Hands a file to the browser's downloads, under a name that every file system takes. */
export function saveFile(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-').trim();
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
