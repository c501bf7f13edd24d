import { startPracticePlatform, type PlatformContent } from '#standins';
import type { District } from './district.js';
import { makeDistrict } from './make-district.js';
import { fernway, fernwayContent, quillpond, quillpondContent } from './platform-contents.js';

/** The two practice platforms in a process of their own, which tells its parent where they are and ends with it. */
let district: District | undefined;
const contentBy = (make: (district: District) => PlatformContent) => {
  let content: PlatformContent | undefined;
  return () => Promise.resolve((content ??= make((district ??= makeDistrict().district))));
};
const platforms = [
  await startPracticePlatform(quillpond, contentBy(quillpondContent)),
  await startPracticePlatform(fernway, contentBy(fernwayContent)),
];
process.send?.(platforms.map(({ address }) => address));
process.once('disconnect', () => process.exit(0));
