import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import type { Sheet } from '@/words/sheet';
import type { KeyCut } from '@/core/key-cut';

// The whole font, so that names of every script it knows are written as they are.
const FONTS = join(process.cwd(), 'node_modules/@expo-google-fonts/source-sans-3');
const REGULAR = join(FONTS, '400Regular/SourceSans3_400Regular.ttf');
const BOLD = join(FONTS, '600SemiBold/SourceSans3_600SemiBold.ttf');
const INK = '#1D2B2F';
const MUTED = '#56625F';
const LINE = '#DCD5C6';

const LEFT = 60;
const RIGHT = 535;
const WIDTH = RIGHT - LEFT;

/** The tier's key, shape first: the same cut as on the screen. The answer is where it ends. */
function drawKey(pdf: PDFKit.PDFDocument, { notches }: KeyCut, x: number, y: number): number {
  const reach = [0, 3.2, 5.6, 8];
  const shaft = x + 15 + notches.length * 5;
  pdf.lineWidth(2.2).lineCap('round').strokeColor(INK);
  pdf.circle(x + 6.5, y + 7, 4.6).stroke();
  pdf
    .moveTo(x + 11.2, y + 7)
    .lineTo(shaft, y + 7)
    .stroke();
  for (const [index, depth] of notches.entries()) {
    const at = shaft - (notches.length - 1 - index) * 5;
    pdf
      .moveTo(at, y + 7)
      .lineTo(at, y + 7 + (reach[depth] ?? 3.2))
      .stroke();
  }
  return shaft;
}

/** A document as a PDF of A4 pages. */
export async function documentPdf(sheet: Sheet): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: 'A4',
    margins: { top: 60, bottom: 60, left: LEFT, right: 60 },
    info: { Title: `${sheet.title} ${sheet.label}`, Author: sheet.seller[0] ?? '' },
    lang: sheet.locale,
  });
  pdf.registerFont('text', REGULAR).registerFont('bold', BOLD);
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise((resolve) => pdf.on('end', resolve));

  const after = drawKey(pdf, sheet.keyCut, LEFT, 62);
  pdf
    .fillColor(INK)
    .font('bold')
    .fontSize(22)
    .text(sheet.title, after + 12, 56);
  pdf.font('text').fontSize(11).fillColor(MUTED).text(`${sheet.label}, ${sheet.date}`, LEFT, 92);
  if (sheet.about) pdf.text(sheet.about, { width: WIDTH });
  const top = pdf.y + 24;
  const block = (head: string, lines: string[], x: number): number => {
    pdf
      .font('text')
      .fontSize(9)
      .fillColor(MUTED)
      .text(head, x, top, { width: WIDTH / 2 - 20 });
    pdf.fontSize(11).fillColor(INK);
    for (const line of lines) pdf.text(line, { width: WIDTH / 2 - 20 });
    return pdf.y;
  };
  let y =
    Math.max(
      block(sheet.heads.from, sheet.seller, LEFT),
      block(sheet.heads.to, sheet.buyer, LEFT + WIDTH / 2 + 20),
    ) + 30;

  const rule = (): void => {
    pdf.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(0.7).strokeColor(LINE).stroke();
    y += 8;
  };
  const amountAt = (text: string, x: number): void => {
    pdf.text(text, x - 90, y, { width: 90, align: 'right', lineBreak: false });
  };
  const hasTax = sheet.lines.some((line) => line.tax !== null);
  pdf.font('text').fontSize(9).fillColor(MUTED).text(sheet.heads.for, LEFT, y);
  if (hasTax) amountAt(sheet.heads.tax, RIGHT - 95);
  amountAt(sheet.heads.amount, RIGHT);
  y += 16;
  for (const line of sheet.lines) {
    rule();
    pdf
      .font('text')
      .fontSize(11)
      .fillColor(INK)
      .text(line.words, LEFT, y, { width: WIDTH - 200 });
    const bottom = pdf.y;
    if (line.tax) amountAt(line.tax, RIGHT - 95);
    amountAt(line.amount, RIGHT);
    y = bottom + 8;
  }
  rule();
  for (const total of sheet.totals) {
    pdf
      .font(total.isMain ? 'bold' : 'text')
      .fontSize(total.isMain ? 13 : 11)
      .fillColor(total.isMain ? INK : MUTED);
    pdf.text(total.words, LEFT, y, { width: WIDTH - 100 });
    const bottom = pdf.y;
    amountAt(total.amount, RIGHT);
    y = bottom + 4;
  }
  pdf
    .font('text')
    .fontSize(11)
    .fillColor(INK)
    .text('', LEFT, y + 14);
  for (const words of sheet.settled) pdf.text(words, { width: WIDTH });
  pdf.end();
  await ended;
  return Buffer.concat(chunks);
}
