// Hands a made file to the browser's downloads.
export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-');
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
