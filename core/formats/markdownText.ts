/** Words as they stand in Markdown: signs that would be taken for marks of the format are escaped (CommonMark 0.31, 2.4). */
export const markdownText = (text: string): string =>
  text.replace(/\s+/g, ' ').replace(/[\\`*_{}[\]<>#|~]/g, (sign) => `\\${sign}`);
