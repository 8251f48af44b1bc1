// Text that stands in markup and stays text.

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** @example escaped('<b>') // '&lt;b&gt;' */
export const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS[sign] ?? sign);
