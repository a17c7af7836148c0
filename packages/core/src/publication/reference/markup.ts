const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** A text as it stands in HTML, between tags and in attributes in quotes. */
export const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => ENTITIES[character] ?? '');

/** The same between tags, where quotes end nothing: examples are full of them. */
export const escapedText = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
