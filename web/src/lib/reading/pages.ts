import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

// Fonts that a file may lean on without bringing them; each with the name that it is asked for by.
const fonts = import.meta.glob<string>('/node_modules/pdfjs-dist/standard_fonts/*.{pfb,ttf}', { query: '?url', import: 'default', eager: true });

class ShippedFonts {
  async fetch({ filename }: { filename: string }) {
    const url = fonts[`/node_modules/pdfjs-dist/standard_fonts/${filename}`];
    if (!url) throw new Error(`There is no font ${filename}.`);
    return new Uint8Array(await (await fetch(url)).arrayBuffer());
  }
}

/** Opens a PDF to be drawn. Its scripts never run, and nothing of it is fetched from elsewhere. */
export async function openPages(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist');
  GlobalWorkerOptions.workerSrc = worker;
  return getDocument({ data: bytes, isEvalSupported: false, useWasm: false, useWorkerFetch: false, StandardFontDataFactory: ShippedFonts, enableXfa: false })
    .promise;
}

/** Draws a page as wide as the canvas stands on the screen. */
export async function drawPage(page: PDFPageProxy, canvas: HTMLCanvasElement, width: number) {
  const scale = (width / page.getViewport({ scale: 1 }).width) * Math.min(2, window.devicePixelRatio || 1);
  const viewport = page.getViewport({ scale });
  [canvas.width, canvas.height] = [Math.round(viewport.width), Math.round(viewport.height)];
  await page.render({ canvas, viewport, annotationMode: 0 }).promise;
}
