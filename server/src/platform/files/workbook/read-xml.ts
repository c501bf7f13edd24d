import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** What is done at the elements of an XML file; names come without the prefix of their namespace. */
export interface XmlReader {
  open?(name: string, attributes: Readonly<Record<string, string>>): void;
  text?(text: string): void;
  close?(name: string): void;
}

/**
 * Reads an XML file piece by piece, so that other work goes on between the pieces.
 * @throws Error where it is not well-formed
 */
export async function readXml(pieces: AsyncIterable<Uint8Array>, reader: XmlReader): Promise<void> {
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag: SaxesTagPlain) => reader.open?.(local(tag.name), attributesOf(tag)));
  parser.on('closetag', (tag) => reader.close?.(local(tag.name)));
  parser.on('text', (text) => reader.text?.(text));
  parser.on('cdata', (text) => reader.text?.(text));
  const decoder = new TextDecoder();
  for await (const piece of pieces) parser.write(decoder.decode(piece, { stream: true }));
  parser.write(decoder.decode()).close();
}

function attributesOf(tag: SaxesTagPlain): Record<string, string> {
  return Object.fromEntries(Object.entries(tag.attributes).map(([name, value]) => [local(name), value]));
}

function local(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}
