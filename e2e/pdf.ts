/** A PDF with a line of text on each page, written by hand after ISO 32000-1, 7.5 (file structure). */
export function pdfWith(lines: readonly string[]): Buffer {
  const pages = lines.map((_, i) => `${3 + 2 * i} 0 R`).join(' ');
  const font = '<< /Font << /F1 << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >>';
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Kids [${pages}] /Count ${lines.length} >>`,
    ...lines.flatMap((line, i) => {
      const content = `BT /F1 24 Tf 40 200 Td (${line}) Tj ET`;
      return [
        `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 400 280] /Contents ${4 + 2 * i} 0 R /Resources ${font} >>`,
        `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
      ];
    }),
  ];
  let file = '%PDF-1.4\n';
  const places = objects.map((object, i) => {
    const place = file.length;
    file += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return `${String(place).padStart(10, '0')} 00000 n \n`;
  });
  const end = `trailer << /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${file.length}\n%%EOF`;
  return Buffer.from(`${file}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.join('')}${end}`);
}
