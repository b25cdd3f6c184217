// Prints the text of the PDF on standard input, sheet by sheet. A process of its own: the reader is an ES module.
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const file = await getDocument({ data: new Uint8Array(Buffer.concat(chunks)), verbosity: 0 }).promise;
for (let page = 1; page <= file.numPages; page += 1) {
  const { items } = await (await file.getPage(page)).getTextContent();
  process.stdout.write(items.map((item) => (item.str ?? '') + (item.hasEOL ? ' ' : '')).join('') + '\n');
}
