import { sheetPdf } from '@/app/sheet-pdf';
import { joiningToPay } from '@/services/invoice-to-pay';

export async function GET(
  _: Request,
  { params }: { params: Promise<{ joiningId: string }> },
): Promise<Response> {
  return sheetPdf(await joiningToPay((await params).joiningId));
}
