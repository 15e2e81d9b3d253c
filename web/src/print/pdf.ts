import regular from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff?url';
import bold from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff?url';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

export type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

/** Points of a millimetre on paper. */
export const PT_PER_MM = 72 / 25.4;

/** The type on paper has no narrow spaces. */
export const plain = (text: string): string => text.replace(/[\u00a0\u202f]/g, ' ');

async function base64(url: string): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer());
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

/** Makes a PDF in Kauri's own type. The maker is loaded when the first is asked for. */
export async function makePdf(definition: TDocumentDefinitions): Promise<Blob> {
  const [{ default: pdfMake }, normal, strong] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    base64(regular),
    base64(bold),
  ]);
  pdfMake.addVirtualFileSystem({ 'atkinson.woff': normal, 'atkinson-bold.woff': strong });
  pdfMake.addFonts({
    Atkinson: {
      normal: 'atkinson.woff',
      bold: 'atkinson-bold.woff',
      italics: 'atkinson.woff',
      bolditalics: 'atkinson-bold.woff',
    },
  });
  return pdfMake
    .createPdf({
      defaultStyle: { font: 'Atkinson', fontSize: 9.5, color: '#1f261e' },
      info: { creator: 'Kauri' },
      ...definition,
    })
    .getBlob();
}

/** Offers a file to the browser under a name. */
export function offerFile(name: string, content: Blob | string, type = 'application/octet-stream'): void {
  const url = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download reads the address after the click is handled.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
