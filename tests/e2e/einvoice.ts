import { InvoiceService, invoiceSchema } from '@e-invoice-eu/core';
import { convert } from 'xmlbuilder2';

// Reads an invoice of ours as somebody else's program does: a general library for EN 16931, which knows nothing of us.

interface Schema {
  type?: string;
  $ref?: string;
  items?: Schema;
  properties?: Record<string, Schema>;
}
type Node = Record<string, unknown>;

const quiet = { log() {}, warn() {}, error() {} };
const root = invoiceSchema as unknown as Schema & Node;
const at = (...steps: string[]): Node => steps.reduce((node: Node, step) => node[step] as Node, root);

// A price is no amount: EN 16931 (BT-146) sets no limit to its decimals, where the library's schema has two.
const line = at('properties', 'ubl:Invoice', 'properties', 'cac:InvoiceLine');
(
  line['items'] as {
    properties: { 'cac:Price': { properties: Record<string, Schema> } };
  }
).properties['cac:Price'].properties['cbc:PriceAmount'] = { type: 'string' };

const resolved = (schema: Schema): Schema => (schema.$ref ? (at(...schema.$ref.slice(2).split('/')) as Schema) : schema);

// The library wants lists where its schema has them, and attributes beside their elements.
function shaped(value: unknown, wanted: Schema): unknown {
  const schema = resolved(wanted);
  if (schema.type === 'array') return [value].flat().map((one) => shaped(one, schema.items!));
  if (typeof value !== 'object' || value === null) return value;
  const known = schema.properties ?? {};
  const made: Node = {};
  for (const [name, child] of Object.entries(value as Node)) {
    if (name.startsWith('@')) continue;
    made[name] = shaped(textOf(child), known[name] ?? {});
    if (typeof child === 'object' && child !== null && !Array.isArray(child))
      for (const [key, attribute] of Object.entries(child as Node)) if (key.startsWith('@')) made[`${name}${key}`] = attribute;
  }
  return made;
}

const textOf = (node: unknown): unknown => (typeof node === 'object' && node !== null && '#' in node ? (node as Node)['#'] : node);

/** What the library read of a file of UBL, and what it writes of it in the other syntax (UN/CEFACT CII). */
export async function readBack(ubl: string): Promise<{ read: Node; cii: string }> {
  const whole = convert(ubl, { format: 'object' }) as unknown as Node;
  const invoice = shaped(whole['Invoice'], root.properties!['ubl:Invoice']!) as Node;
  const cii = await new InvoiceService(quiet).generate({ 'ubl:Invoice': invoice } as never, { format: 'CII', lang: 'en-us', noWarnings: true });
  return { read: invoice, cii: String(cii) };
}
