import type { Response } from 'express';

/** Makes the browser keep what is sent under a name in any script (RFC 6266). */
export function sendAsAttachment(response: Response, name: string): void {
  const dot = name.lastIndexOf('.');
  const stem = name
    .slice(0, dot)
    .replace(/[\\/:*?"<>|\p{C}]+/gu, ' ')
    .trim()
    .slice(0, 120);
  const fileName = `${stem || 'recording'}${name.slice(dot)}`;
  const encoded = encodeURIComponent(fileName).replace(
    /['()*]/g,
    (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`,
  );
  response.setHeader(
    'Content-Disposition',
    `attachment; filename="${fileName.replace(/[^ -~]|["\\%]/g, '_')}"; filename*=UTF-8''${encoded}`,
  );
}
